/** The cells of a line, by column. */
import type { ReactNode } from 'react';
import { fixed, minus, negative, ratio, textOf, withoutCurrency } from '../../../core/exact';
import { figureAt, limitFor, resaleOf } from '../../../core/pricing';
import {
  typedMoney,
  type LedgerColumnId,
  type LineView,
  type QuoteView,
  type SignOffsOfQuote,
} from '../../../contract';
import { date, money, number, percent, type Translate } from '../../../i18n';
import { stepName } from '../../parts/step-name';
import { unitText } from '../../parts/unit-text';
import { EditCell } from './EditCell';
import { TypedFigureCell } from './TypedFigureCell';
import shared from '../ledger.module.css';
import css from './lines.module.css';
import { ReachMark } from './ReachMark';
import { madeOf } from './rows';
import {
  moneyOrNone,
  sendable,
  sendableMoney,
  sendableQuantity,
  twoWays,
  wrongMoney,
  wrongQuantity,
  wrongWith,
  type Way,
} from './typed-amount';
import type { LineChange } from '../session/useQuote';

/** What of the quote the cells of every line need. */
export interface Means {
  may: QuoteView['may'];
  currency: string;
  decimals: number;
  limits: SignOffsOfQuote['limits'];
  /** The share that the whole-quote discount takes off, where one is typed. */
  whole: string | undefined;
  resale: QuoteView['resale'];
}

/** What a cell is drawn from. */
export interface CellMeans {
  line: LineView;
  means: Means;
  /** Where the line stands with the limits. */
  judged: SignOffsOfQuote['judged'];
  t: Translate;
  language: string;
  onChange: (line: LineView, change: LineChange) => Promise<string | null>;
  /** Tells how the net of the line comes about. */
  onExplain: (line: LineView) => void;
  /** Fills the column downwards from this line, a value each. */
  onFill: (line: LineView, changes: readonly LineChange[]) => void;
}

/**
 * What all granted steps take off together, as a share of the list price; and each of them, one after
 * another.
 */
function granted({ price }: LineView, t: Translate, language: string): ReactNode {
  const steps = price.steps.filter(
    (step) => ['agreement', 'quantity', 'promotion'].includes(step.kind) && fixed(step.amount).units !== 0n,
  );
  const list = fixed(price.unitList);
  if (steps.length === 0 || list.units === 0n) return still('');
  const off = steps.reduce((sum, step) => minus(sum, fixed(step.amount)), fixed('0'));
  return (
    <span
      className={css.still}
      title={steps
        .map((step) =>
          [stepName(step, t, language), ...(step.rate ? [percent(step.rate, language)] : [])].join(' '),
        )
        .join(', ')}
    >
      {percent(ratio(off, list), language)}
    </span>
  );
}

/** Why the net is not what the row multiplies to: something else is in it, which the opened line shows. */
function besides(line: LineView, t: Translate): ReactNode {
  const kinds = new Set(
    madeOf(line)
      .slice(1)
      .map(({ is }) => is),
  );
  if (line.price.recurring && kinds.size === 0) return null;
  const said = [
    ...(kinds.has('once') ? [t('ledger.withOnce')] : []),
    ...(kinds.has('term') ? [t('ledger.withRecurring')] : []),
  ];
  return said.length > 0 && <span className={css.under}>{said.join(' ')}</span>;
}

const still = (text: string): ReactNode => <span className={css.still}>{text}</span>;

function four(
  {
    line,
    means: { may, currency, decimals, limits, whole },
    judged: all,
    t,
    language,
    onChange,
    onFill,
  }: CellMeans,
  by: Way,
  value: string | undefined,
  label: string,
): ReactNode {
  const reach = by === 'rate' ? 'discount' : by === 'margin' ? 'margin' : undefined;
  const judged = reach && all.find((each) => each.by === reach);
  const limit = judged && limitFor(limits, line.family, judged.by);
  return (
    <TypedFigureCell
      by={by}
      value={value}
      typed={line.hand}
      label={`${label} ${String(line.position)}`}
      currency={currency}
      decimals={decimals}
      disabled={!may.discount || !line.discountable}
      onType={(typed) => onChange(line, { hand: typed })}
      below={
        by === 'net' && line.price.per === 'line'
          ? () => <span className={css.under}>{t('ledger.forAll')}</span>
          : judged &&
            limit &&
            ((typed) => (
              <ReachMark
                limit={limit}
                figure={typed === undefined ? judged.figure : figureAt(line.price, judged.by, typed, whole)}
              />
            ))
      }
      onFill={(texts) =>
        onFill(
          line,
          texts.map((text) =>
            text === null
              ? {}
              : { hand: text.trim() === '' ? null : { by, value: sendable(by, text, language, currency) } },
          ),
        )
      }
    />
  );
}

const cells: Record<LedgerColumnId, (means: CellMeans) => ReactNode> = {
  quantity: ({ line, means, t, language, onChange, onFill }) => (
    <EditCell
      label={`${t('ledger.quantity')} ${String(line.position)}`}
      value={number(String(line.quantity), language)}
      disabled={!means.may.edit}
      narrow
      check={(typed) => wrongQuantity(typed, language, t, line.unit)}
      below={
        line.unit === 'pc' ? undefined : () => <span className={css.under}>{unitText(line.unit, t)}</span>
      }
      onSave={(typed) => onChange(line, { quantity: sendableQuantity(typed, language) })}
      onFill={(texts) =>
        onFill(
          line,
          texts.map((text) => (text === null ? {} : { quantity: sendableQuantity(text, language) })),
        )
      }
    />
  ),
  list: ({ line, means, t, language, onChange }) => (
    <>
      {line.typedPrice === undefined ? (
        still(money(line.price.unitList, language, means.decimals))
      ) : (
        <EditCell
          label={`${t('ledger.list')} ${String(line.position)}`}
          value={line.typedPrice === null ? '' : money(line.typedPrice, language, means.decimals)}
          disabled={!means.may.edit}
          strong
          waits={line.typedPrice === null}
          check={(typed) =>
            twoWays(withoutCurrency(typed).amount, language, t) ??
            wrongWith(typedMoney, sendableMoney(typed, language, means.currency), t)
          }
          onSave={(typed) => onChange(line, { price: sendableMoney(typed, language, means.currency) })}
        />
      )}
      {line.price.per === 'line' ? (
        <span className={css.under}>{t('ledger.forAll')}</span>
      ) : (
        line.price.recurring && (
          <span className={css.under}>{t('walk.forMonths', { count: line.price.recurring.baseMonths })}</span>
        )
      )}
    </>
  ),
  granted: ({ line, t, language }) => granted(line, t, language),
  rate: (cell) =>
    four(
      cell,
      'rate',
      cell.line.price.steps.find((step) => step.kind === 'discount')?.rate ?? '0',
      cell.t('ledger.discount'),
    ),
  amount: (cell) => {
    const byHand = cell.line.price.steps.find((step) => step.kind === 'discount');
    return four(cell, 'amount', byHand ? textOf(negative(fixed(byHand.amount))) : '0', cell.t('ledger.off'));
  },
  net: (cell) => four(cell, 'net', cell.line.price.unitNet, cell.t('ledger.unitNet')),
  margin: (cell) => {
    const { unitCost, unitNet } = cell.line.price;
    return four(
      cell,
      'margin',
      unitCost === undefined || unitNet === '0'
        ? undefined
        : ratio(minus(fixed(unitNet), fixed(unitCost)), fixed(unitNet)),
      cell.t('ledger.marginPercent'),
    );
  },
  share: ({ line, means, language }) =>
    still(
      line.price.share === undefined
        ? ''
        : money(textOf(negative(fixed(line.price.share))), language, means.decimals),
    ),
  total: ({ line, means, t, language, onExplain }) => {
    const net = money(line.price.net, language, means.decimals);
    return (
      <button
        type="button"
        className={shared.asks}
        onClick={() => onExplain(line)}
        aria-label={t('ledger.explainNet', { line: String(line.position), net })}
      >
        {net}
        {besides(line, t)}
      </button>
    );
  },
  listTotal: ({ line, means, language }) => still(money(line.price.list, language, means.decimals)),
  cost: ({ line, means, language }) =>
    still(line.price.cost === undefined ? '' : money(line.price.cost, language, means.decimals)),
  earned: ({ line, means, language }) =>
    still(
      line.price.cost === undefined
        ? ''
        : money(textOf(minus(fixed(line.price.net), fixed(line.price.cost))), language, means.decimals),
    ),
  pricedOn: ({ line, language }) => still(date(line.pricedOn, language)),
  resale: ({ line, means, t, language, onChange }) => {
    if (line.resale === undefined || !means.resale) return null;
    const { unit, total } = resaleOf(
      line.price,
      line.quantity,
      means.resale.share,
      means.decimals,
      line.resale,
    );
    return (
      <EditCell
        label={`${t('column.resale')} ${String(line.position)}`}
        value={money(unit ?? total, language, means.decimals)}
        disabled={!means.may.edit}
        strong={line.resale !== null}
        check={(typed) => wrongMoney(typed, language, means.currency, t)}
        onSave={(typed) => onChange(line, { resale: moneyOrNone(typed, language, means.currency) })}
      />
    );
  },
  resaleTotal: ({ line, means, language }) =>
    means.resale
      ? still(
          money(
            resaleOf(line.price, line.quantity, means.resale.share, means.decimals, line.resale).total,
            language,
            means.decimals,
          ),
        )
      : null,
  tax: ({ line, language }) => still(line.taxRate === undefined ? '' : percent(line.taxRate, language)),
};

/** The cell of a column. */
export const cellOf = (id: LedgerColumnId, cell: CellMeans): ReactNode => cells[id](cell);
