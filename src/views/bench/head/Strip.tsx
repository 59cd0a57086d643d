import { lazy, memo, Suspense, useState } from 'react';
import { ChevronsUp } from 'lucide-react';
import type { BenchView } from '../../../contract';
import { own, type Translate } from '../../../i18n';
import { Button, Tabs, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { BuildList } from '../sheet/BuildList';
import { Operations } from '../panels/Operations';
import css from './strip.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';
import { downMark, upMark } from '../sheet/marks';

// What compares builds is sent when it is first looked at.
const BestPanel = lazy(async () => ({ default: (await import('../panels/best/BestPanel')).BestPanel }));
const Variants = lazy(async () => ({ default: (await import('../panels/Variants')).Variants }));

/** A panel that the strip opens. */
export type StripTab = 'parts' | 'operations' | 'changed' | 'notes' | 'variants' | 'best';

interface Props {
  tab: StripTab;
  onTab: (tab: StripTab) => void;
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
  onOpen: (variant: string) => void;
}

/** How it is made is only for those who are told. */
const tabsFor = ({ may }: BenchView): StripTab[] => [
  ...(may.making ? (['parts', 'operations'] as const) : []),
  'changed',
  'notes',
  'variants',
  'best',
];

/**
 * The strip at the foot: what the build is made of and how, what moved, what to know, and how it stands
 * beside others.
 */
export const Strip = memo(function Strip(props: Props) {
  const { tab, onTab, view } = props;
  const { t } = useSpeech();
  const [size, setSize] = useState<'closed' | 'low' | 'tall'>(view.may.making ? 'low' : 'closed');
  // What compares builds wants room.
  const tall = size === 'tall' || (size === 'low' && (tab === 'variants' || tab === 'best'));
  return (
    <section
      className={classes(css.strip, size === 'closed' && css.closed, tall && css.tall)}
      aria-label={t('bench.parts')}
    >
      <div className={css.head}>
        <Tabs
          label={t('bench.parts')}
          tabs={tabsWithCounts(props, t)}
          chosen={tab}
          onChoose={(id) => {
            onTab(id);
            if (size === 'closed') setSize('low');
          }}
          panel="strip-panel"
        />
        <span>
          {size !== 'closed' && (
            <Button
              look="plain"
              aria-label={t('bench.taller')}
              aria-pressed={size === 'tall'}
              onClick={() => setSize(size === 'tall' ? 'low' : 'tall')}
            >
              <ChevronsUp
                size={15}
                aria-hidden
                style={{ transform: size === 'tall' ? 'rotate(180deg)' : undefined }}
              />
            </Button>
          )}
          <Button
            look="plain"
            aria-label={t('bench.close')}
            aria-expanded={size !== 'closed'}
            onClick={() => setSize(size === 'closed' ? 'low' : 'closed')}
          >
            {size === 'closed' ? upMark : downMark}
          </Button>
        </span>
      </div>
      {size !== 'closed' && (
        <div
          id="strip-panel"
          role="tabpanel"
          aria-label={t(`bench.${tab}`)}
          tabIndex={0}
          className={css.body}
        >
          <StripPanel {...props} />
        </div>
      )}
    </section>
  );
}, showsTheSame);

function showsTheSame(before: Props, after: Props): boolean {
  return (
    before.tab === after.tab &&
    before.bench.picture === after.bench.picture &&
    before.bench.content === after.bench.content &&
    before.bench.save === after.bench.save &&
    before.view === after.view &&
    before.words === after.words
  );
}

/** The tabs there are, with how much there is behind them. */
function tabsWithCounts({ bench, view }: Props, t: Translate): { id: StripTab; text: string }[] {
  const { making, state } = bench.picture;
  const counts: Partial<Record<StripTab, number>> = {
    parts: making.materials.length,
    operations: making.operations.length,
    changed: bench.moved.length,
    notes: state.messages.length,
  };
  return tabsFor(view).map((id) => ({
    id,
    text: counts[id] === undefined ? t(`bench.${id}`) : `${t(`bench.${id}`)} ${String(counts[id])}`,
  }));
}

/**
 * What a tab opens. Only what is sent later stands in a boundary of its own: one around all of it would be told
 * by the server in a script of its own, which no page may run.
 */
function StripPanel({ tab, bench, view, words, frozen, onOpen }: Props) {
  const common = { bench, view, words, frozen };
  switch (tab) {
    case 'parts':
      return <BuildList {...common} />;
    case 'operations':
      return <Operations making={bench.picture.making} words={words} />;
    case 'changed':
      return <Changed moved={bench.moved} words={words} />;
    case 'notes':
      return <Notes messages={bench.picture.state.messages} />;
    case 'variants':
      return (
        <Suspense>
          <Variants {...common} onOpen={onOpen} />
        </Suspense>
      );
    case 'best':
      return (
        <Suspense>
          <BestPanel {...common} />
        </Suspense>
      );
  }
}

/** What the last decision changed by itself. */
function Changed({ moved, words }: { moved: Bench['moved']; words: Words }) {
  const { t } = useSpeech();
  if (moved.length === 0) return <p className={shared.note}>{t('bench.nothingChanged')}</p>;
  return (
    <table className={shared.table}>
      <tbody>
        {moved.map((each) => (
          <tr key={each.row}>
            <td>{words.row(each.row)}</td>
            <td>{each.after === undefined ? t('bench.hidden') : words.value(each.row, each.after)}</td>
            <td className={shared.quiet}>
              {t('bench.was')}{' '}
              {each.before === undefined ? t('bench.open') : words.value(each.row, each.before)}
            </td>
            <td className={shared.source}>{t(`source.${each.source}`)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Notes({ messages }: { messages: Bench['picture']['state']['messages'] }) {
  const { t, language } = useSpeech();
  if (messages.length === 0) return <p className={shared.note}>{t('bench.noNotes')}</p>;
  return (
    <ul>
      {messages.map((message) => (
        <li key={message.rule} className={shared.note}>
          <span className={message.severity === 'warning' ? shared.warning : shared.quiet}>
            {t(`severity.${message.severity}`)}
          </span>
          {own(message.text, language)}
        </li>
      ))}
    </ul>
  );
}
