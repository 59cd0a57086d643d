import { useMemo, useState } from 'react';
import { Maximize2, Minimize2 } from 'lucide-react';
import { explain, type ExplainedLine, type Figure, type PricedQuote } from '../../../core/pricing';
import { money, percent } from '../../../i18n';
import { Button, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import { Deal } from './Deal';
import { Explained } from './Explained';
import css from '../ledger.module.css';
import { Revisions } from './Revisions';
import { SignOff } from './SignOff';
import { useKeyboardIn } from './useKeyboardIn';
import { type SideProps } from './side-view';
import { LineWalk, QuoteWalk } from './Walks';

const shares = new Set(['margin', 'markUp']);

/** The pane at the side of the Ledger. */
export function Side({ view, side, onChange, signing, onLease, onRates }: SideProps) {
  const { t, language } = useSpeech();
  const { decimals } = view;
  const amount = (value: string) => money(value, language, decimals);
  const [lines, priced] = useMemo(
    (): [ExplainedLine[], PricedQuote] => [
      view.lines.map(({ id, quantity, alternative, optional }) => ({
        id,
        counts: !alternative && !optional,
        terms: { quantity },
      })),
      {
        lines: view.lines.map(({ id, price }) => ({ id, price, problems: [] })),
        totals: view.totals,
        whole: view.whole.comes,
        ...(view.tax ? { tax: view.tax } : {}),
      },
    ],
    [view],
  );
  const nameOf = (figure: Figure): string => {
    if (figure.of === 'quote') return t(`ledger.figure.${figure.what}`);
    const position = view.lines.find((each) => each.id === figure.line)?.position ?? 0;
    const period =
      figure.period === undefined
        ? undefined
        : view.lines.find((each) => each.id === figure.line)?.price.subscriptions?.[figure.period]?.recurring;
    if (period)
      return t('ledger.figureOfTerm', {
        what: t(`ledger.figure.${figure.what}`),
        line: position,
        base: period.baseMonths,
      });
    return t('ledger.figureOf', { what: t(`ledger.figure.${figure.what}`), line: position });
  };
  const [wide, setWide] = useState(false);
  const pane = useKeyboardIn(side.is);
  const asked = side.asked[side.asked.length - 1];
  // The walk beside a figure is that of its line.
  const of = asked?.of === 'line' ? asked.line : side.line;
  const line = view.lines.find((each) => each.id === of);
  const explanation = asked && explain(lines, priced, decimals, asked);
  const title =
    side.is === 'signOff'
      ? t('signOff.title')
      : side.is === 'revisions'
        ? t('revision.title')
        : side.is === 'deal'
          ? t('deal.title')
          : line
            ? t('ledger.walkOf', { line: line.position })
            : t('ledger.walkAll');
  return (
    <aside
      ref={pane}
      className={classes(css.side, wide && css.wide)}
      tabIndex={0}
      aria-label={title}
      onKeyDown={(event) => {
        if (
          event.key === 'Escape' &&
          !event.defaultPrevented &&
          !(event.target as HTMLElement).matches('input, textarea')
        )
          onChange(undefined);
      }}
    >
      <div className={css.sideHead}>
        <h2>{title}</h2>
        <Button
          look="plain"
          aria-pressed={wide}
          title={t(wide ? 'ledger.narrower' : 'ledger.wider')}
          aria-label={t(wide ? 'ledger.narrower' : 'ledger.wider')}
          onClick={() => setWide(!wide)}
        >
          {wide ? <Minimize2 size={14} aria-hidden /> : <Maximize2 size={14} aria-hidden />}
        </Button>
        <Button look="plain" onClick={() => onChange(undefined)}>
          {t('bench.close')}
        </Button>
      </div>
      {side.is === 'signOff' ? (
        <SignOff view={view} {...signing} />
      ) : side.is === 'revisions' ? (
        <Revisions view={view} />
      ) : side.is === 'deal' ? (
        <Deal view={view} onLease={onLease} />
      ) : line ? (
        <LineWalk line={line} title={title} view={view} amount={amount} onRates={onRates} />
      ) : (
        <QuoteWalk title={title} view={view} amount={amount} />
      )}
      {explanation && (
        <Explained
          explanation={explanation}
          nameOf={nameOf}
          decimals={decimals}
          shown={(value, figure) => (shares.has(figure.what) ? percent(value, language, 2) : amount(value))}
          onAsk={(figure) => onChange({ ...side, asked: [...side.asked, figure] })}
          onBack={
            side.asked.length > 1 ? () => onChange({ ...side, asked: side.asked.slice(0, -1) }) : undefined
          }
        />
      )}
    </aside>
  );
}
