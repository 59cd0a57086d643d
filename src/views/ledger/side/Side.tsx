import { useMemo, useState } from 'react';
import { Maximize2, Minimize2 } from 'lucide-react';
import { explain, type ExplainedLine, type Figure, type PricedQuote } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';
import { money, percent, type Translate } from '../../../i18n';
import { Button, classes } from '../../../ui';
import { Sent } from '../../parts/sent/Sent';
import { useSpeech } from '../../speech';
import { Colleagues } from './colleagues/Colleagues';
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
export function Side(props: SideProps) {
  const { view, side, onChange } = props;
  const { t } = useSpeech();
  const [wide, setWide] = useState(false);
  const pane = useKeyboardIn(side.is);
  // The walk beside a figure is that of its line.
  const asked = side.asked.at(-1);
  const of = asked?.of === 'line' ? asked.line : side.line;
  const line = view.lines.find((each) => each.id === of);
  const title = titleOf(side, line, t);
  const size = t(wide ? 'ledger.narrower' : 'ledger.wider');
  return (
    <aside
      ref={pane}
      className={classes(css.side, wide && css.wide)}
      tabIndex={0}
      aria-label={title}
      onKeyDown={(event) => {
        const typing = (event.target as HTMLElement).matches('input, textarea');
        if (event.key === 'Escape' && !event.defaultPrevented && !typing) onChange(undefined);
      }}
    >
      <div className={css.sideHead}>
        <h2>{title}</h2>
        <Button
          look="plain"
          aria-pressed={wide}
          title={size}
          aria-label={size}
          onClick={() => setWide(!wide)}
        >
          {wide ? <Minimize2 size={14} aria-hidden /> : <Maximize2 size={14} aria-hidden />}
        </Button>
        <Button look="plain" onClick={() => onChange(undefined)}>
          {t('bench.close')}
        </Button>
      </div>
      <Content {...props} line={line} title={title} />
      {asked && <Why {...props} asked={asked} />}
    </aside>
  );
}

function titleOf({ is }: SideProps['side'], line: LineView | undefined, t: Translate): string {
  if (is === 'signOff') return t('signOff.title');
  if (is === 'revisions') return t('revision.title');
  if (is === 'deal') return t('deal.title');
  if (is === 'sent') return t('sent.title');
  if (is === 'colleagues') return t('colleague.title');
  return line ? t('ledger.walkOf', { line: line.position }) : t('ledger.walkAll');
}

function Content({
  view,
  side,
  signing,
  onLease,
  onRates,
  onOtherwise,
  line,
  title,
}: SideProps & { line: LineView | undefined; title: string }) {
  const { language } = useSpeech();
  const amount = (value: string) => money(value, language, view.decimals);
  if (side.is === 'signOff') return <SignOff view={view} {...signing} />;
  if (side.is === 'revisions') return <Revisions view={view} />;
  if (side.is === 'sent')
    return <Sent of={{ is: 'quotes', id: view.id }} mayOrder={view.may.accept} onOrdered={onOtherwise} />;
  if (side.is === 'colleagues') return <Colleagues view={view} onChanged={onOtherwise} />;
  if (side.is === 'deal') return <Deal view={view} onLease={onLease} />;
  return line ? (
    <LineWalk line={line} title={title} view={view} amount={amount} onRates={onRates} />
  ) : (
    <QuoteWalk title={title} view={view} amount={amount} />
  );
}

/** How a figure comes about, and the way back to the one that led there. */
function Why({ view, side, onChange, asked }: SideProps & { asked: Figure }) {
  const { t, language } = useSpeech();
  const { decimals } = view;
  const [lines, priced] = useMemo(() => pricedAgain(view), [view]);
  const explanation = explain(lines, priced, decimals, asked);
  if (!explanation) return null;
  return (
    <Explained
      explanation={explanation}
      nameOf={(figure) => nameOf(figure, view, t)}
      decimals={decimals}
      shown={(value, figure) =>
        shares.has(figure.what) ? percent(value, language, 2) : money(value, language, decimals)
      }
      onAsk={(figure) => onChange({ ...side, asked: [...side.asked, figure] })}
      onBack={side.asked.length > 1 ? () => onChange({ ...side, asked: side.asked.slice(0, -1) }) : undefined}
    />
  );
}

/** The quote as it was priced, for explaining it. */
const pricedAgain = (view: QuoteView): [ExplainedLine[], PricedQuote] => [
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
];

function nameOf(figure: Figure, { lines }: QuoteView, t: Translate): string {
  if (figure.of === 'quote') return t(`ledger.figure.${figure.what}`);
  const line = lines.find((each) => each.id === figure.line);
  const what = t(`ledger.figure.${figure.what}`);
  const position = line?.position ?? 0;
  const period =
    figure.period === undefined ? undefined : line?.price.subscriptions?.[figure.period]?.recurring;
  return period
    ? t('ledger.figureOfTerm', { what, line: position, base: period.baseMonths })
    : t('ledger.figureOf', { what, line: position });
}
