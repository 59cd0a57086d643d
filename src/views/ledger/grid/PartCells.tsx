import type { ReactNode } from 'react';
import { date, money, number, own } from '../../../i18n';
import { classes } from '../../../ui';
import { partHow } from '../../../i18n/part-how';
import { useSpeech } from '../../speech';
import type { Shown } from './columns';
import css from './lines.module.css';
import { type LedgerRow } from './rows';
import { FigureCells } from './FigureCells';

/** The cells of a row that a line is made of: how many, at what, which makes how much. */
export function AcrossCells({
  row: { across },
  columns,
  decimals,
}: {
  row: Extract<LedgerRow, { is: 'across' }>;
  columns: readonly Shown[];
  decimals: number;
}): ReactNode {
  const { t, language } = useSpeech();
  const { is, quantity, unitList, unitNet, term, amount } = across;
  const sum = (value: string) => money(value, language, decimals);
  const cell = (id: Shown['id']): ReactNode => {
    if (id === 'quantity') return quantity === undefined ? '' : number(String(quantity), language);
    if (id === 'list')
      return (
        unitList !== undefined && (
          <>
            {sum(unitList)}
            {quantity === undefined && <span className={css.under}>{t('ledger.forAll')}</span>}
          </>
        )
      );
    if (id === 'net') return unitNet !== undefined && sum(unitNet);
    return id === 'total' && sum(amount);
  };
  return (
    <>
      <td className={classes(css.position, css.held)} />
      <td className={classes(css.what, css.held, css.part)}>
        {is === 'term' && term
          ? t('ledger.rowTerm', {
              from: date(term.from, language),
              to: date(term.to, language),
              months: number(String(term.months), language),
              days: term.days > 0 ? t('ledger.termDays', { count: term.days }) : '',
              base: term.baseMonths,
            })
          : t(`file.row.${is}`)}
      </td>
      <FigureCells columns={columns} cell={cell} />
    </>
  );
}

/** The cells of a part of a build: how many of it, at what list price for one build. */
export function PartCells({
  row: { line, part },
  columns,
  decimals,
}: {
  row: Extract<LedgerRow, { is: 'part' }>;
  columns: readonly Shown[];
  decimals: number;
}): ReactNode {
  const { t, language } = useSpeech();
  const reached = part.place === undefined ? undefined : line.reached?.[part.place];
  // Beside the list price is room for how it is made up.
  const beside = columns[columns.findIndex(({ id }) => id === 'list') + 1]?.id;
  const cell = (id: Shown['id']): ReactNode => {
    if (id === 'quantity') return part.quantity === undefined ? '' : number(part.quantity, language);
    if (id === 'list') return part.unitPrice === undefined ? '' : money(part.unitPrice, language, decimals);
    if (id === (columns.some((column) => column.id === 'listTotal') ? 'listTotal' : 'total'))
      return <span title={t('ledger.partAtList')}>({money(part.amount, language, decimals)})</span>;
    return (
      id === beside &&
      part.unitPrice === undefined && <span className={css.how}>{partHow(part, t, language, decimals)}</span>
    );
  };
  return (
    <>
      <td className={classes(css.position, css.held)} />
      <td className={classes(css.what, css.held, css.part)}>
        {own(part.name, language)}
        {part.item && <span className={css.code}>{part.item}</span>}
        {part.recurs && (
          <span className={css.summary}>{t('walk.forMonths', { count: part.recurs.baseMonths })}</span>
        )}
        {reached && <span className={css.reached}>{own(reached, language)}</span>}
      </td>
      <FigureCells columns={columns} cell={cell} />
    </>
  );
}
