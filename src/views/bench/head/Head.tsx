import { memo } from 'react';
import type { BenchView } from '../../../contract';
import { keysIn, own } from '../../../i18n';
import { Button, LinkButton, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './head.module.css';
import { CodeRail } from './CodeRail';
import { KeepDialog } from '../panels/KeepDialog';
import type { Bench } from '../session/useBench';
import { backMark, copyMark, keepMark, redoMark, sendMark, undoMark } from '../sheet/marks';

interface Props {
  view: BenchView;
  bench: Bench;
  frozen: boolean;
  keeping: boolean;
  onKeeping: (keeping: boolean) => void;
  onGo: (row: string) => void;
  onCopy: () => void;
  onQuote: () => void;
}

/** What is built for whom, its part number, and what one can do with the whole of it. */
export const Head = memo(
  function Head({ view, bench, frozen, keeping, onKeeping, onGo, onCopy, onQuote }: Props) {
    const { t, language } = useSpeech();
    const { quote, customer, document, outline } = view;
    const whose = [own(document.name, language), ...(customer === null ? [] : [customer])].join(' · ');
    const { picture, save } = bench;
    const saveText = {
      saved: t('bench.saved'),
      saving: t('bench.saving'),
      offline: t('bench.notSaved'),
      refused: t('bench.notSaved'),
    }[save];
    return (
      <header className={css.rail}>
        <div className={css.about} title={whose}>
          <h1>{whose}</h1>
          <span className={css.aboutQuote}>
            {quote && <a href={`/quotes/${quote.id}`}>{quote.number}</a>}
            {bench.content.special.length > 0 && <span className={css.special}>{t('special.marked')}</span>}
          </span>
        </div>
        <CodeRail number={picture.number} outline={outline} onGo={onGo} />
        <div className={css.acts}>
          <span
            className={classes(css.saved, (save === 'offline' || save === 'refused') && css.bad)}
            role="status"
            title={save === 'offline' ? t('bench.offline') : undefined}
          >
            {saveText}
          </span>
          {save === 'refused' && (
            <Button look="plain" onClick={() => void bench.again()}>
              {t('bench.saveAgain')}
            </Button>
          )}
          <Button look="plain" onClick={onCopy} aria-label={t('bench.copy')} title={t('bench.copy')}>
            {copyMark}
          </Button>
          <Button
            look="plain"
            onClick={() => onKeeping(true)}
            aria-label={t('saved.keep')}
            title={`${t('saved.keep')} (F4)`}
          >
            {keepMark}
          </Button>
          <LinkButton
            look="plain"
            href={`/builds/${view.build.id}/send`}
            aria-label={t('bench.sendOrShare')}
            title={t('bench.sendOrShare')}
          >
            {sendMark}
          </LinkButton>
          {!frozen && (
            <Button
              look="plain"
              disabled={!bench.canUndo}
              onClick={() => void bench.undo()}
              aria-label={t('bench.undo')}
              title={`${t('bench.undo')} (${keysIn('Ctrl Z', language)})`}
            >
              {undoMark}
            </Button>
          )}
          {!frozen && (
            <Button
              look="plain"
              disabled={!bench.canRedo}
              onClick={() => void bench.redo()}
              aria-label={t('bench.redo')}
              title={`${t('bench.redo')} (${keysIn('Ctrl Shift Z', language)})`}
            >
              {redoMark}
            </Button>
          )}
          {quote && <ToQuote {...{ view, bench, frozen, onQuote }} quote={quote.id} />}
        </div>
        <KeepDialog open={keeping} bench={bench} build={view.build.id} onClose={() => onKeeping(false)} />
      </header>
    );
  },
  (before, after) => {
    for (const key of ['view', 'frozen', 'keeping'] as const) if (before[key] !== after[key]) return false;
    return shows(before.bench) === shows(after.bench);
  },
);

/** Back to the quote, or onto it for the first time. */
function ToQuote({
  view,
  bench: { picture },
  frozen,
  quote,
  onQuote,
}: Pick<Props, 'view' | 'bench' | 'frozen' | 'onQuote'> & { quote: string }) {
  const { t } = useSpeech();
  return view.line || frozen ? (
    <LinkButton
      look="main"
      href={`/quotes/${quote}`}
      onClick={(event) => {
        event.preventDefault();
        onQuote();
      }}
    >
      {backMark}
      {t('bench.back')}
    </LinkButton>
  ) : (
    <Button
      look="main"
      disabled={!picture.state.complete || picture.price.unpriced.length > 0}
      onClick={onQuote}
    >
      {t('bench.put')}
    </Button>
  );
}

/** All of the Bench that the head shows. */
const shows = ({ picture, content, save, canUndo, canRedo }: Bench): string =>
  [
    picture.number.text,
    picture.state.complete,
    picture.price.unpriced.length > 0,
    content.special.length > 0,
    save,
    canUndo,
    canRedo,
  ].join('|');
