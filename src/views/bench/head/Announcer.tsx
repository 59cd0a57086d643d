import { memo, useEffect, useRef, useState } from 'react';
import { exact } from '../../../core/exact';
import { moneyIn } from '../../../i18n';
import { Said } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';

/** Of what a decision moved, so much is named; the rest is counted. */
const mostNamed = 3;

interface Props {
  bench: Bench;
  words: Words;
  currency: string;
  decimals: number;
}

/**
 * Tells in one sentence what a decision came to: what else it moved, whether decisions clash, and the net by
 * now.
 */
export const Announcer = memo(
  function Announcer({ bench, words, currency, decimals }: Props) {
    const { t, language } = useSpeech();
    const { content, moved, picture } = bench;
    const last = useRef(content.decisions);
    const [text, setText] = useState('');
    useEffect(() => {
      if (last.current === content.decisions) return;
      last.current = content.decisions;
      const named = moved
        .slice(0, mostNamed)
        .map(
          ({ row, after }) =>
            `${words.row(row)} ${after === undefined ? t('bench.hidden') : words.value(row, after)}`,
        )
        .join(', ');
      const clashes = picture.state.clashes.length;
      setText(
        [
          moved.length === 0
            ? t('said.nothingMoved')
            : moved.length > mostNamed
              ? t('said.movedMore', { what: named, count: moved.length - mostNamed })
              : t('said.moved', { what: named }),
          ...(clashes > 0 ? [t('said.clash', { count: clashes })] : []),
          t(picture.state.complete ? 'said.net' : 'said.netSoFar', {
            net: moneyIn(exact(picture.line.net).toString(), currency, language, decimals),
          }),
        ].join(' '),
      );
    }, [content.decisions, moved, picture, words, currency, decimals, language, t]);
    return <Said text={text} />;
  },
  (before, after) =>
    before.bench.content === after.bench.content &&
    before.bench.picture === after.bench.picture &&
    before.words === after.words,
);
