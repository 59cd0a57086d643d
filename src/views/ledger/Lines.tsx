import { useRef, type KeyboardEvent } from 'react';
import type { LineView, QuoteView } from '../../core/quoting';
import { classes } from '../../ui';
import { useSpeech } from '../speech';
import css from './ledger.module.css';
import { LineRow, type LineActs } from './LineRow';

interface Props extends LineActs {
  onPlace: (line: LineView, to: number) => Promise<void>;
  view: QuoteView;
  /** The line whose walk is open. */
  openLine: string | undefined;
}

/** The lines of a quote. */
export function Lines({ view, openLine, onPlace, ...acts }: Props) {
  const { t } = useSpeech();
  const body = useRef<HTMLTableSectionElement>(null);
  /** Puts the keyboard into the same cell of another row. */
  const goTo = (row: Element | null | undefined, cell: number) => row?.children[cell]?.querySelector<HTMLInputElement>('input')?.focus();
  /** Up and down through a column as in a spreadsheet; with Alt the line itself moves. */
  const keys = (event: KeyboardEvent<HTMLTableSectionElement>): void => {
    const target = event.target as HTMLElement;
    const row = target.closest('tr');
    const line = view.lines.find((each) => each.id === row?.dataset.line);
    if (!row || !line) return;
    const up = event.key === 'ArrowUp';
    if (event.ctrlKey && event.key.toLowerCase() === 'd' && view.may.edit) {
      event.preventDefault();
      acts.onCopy(line);
    } else if ((up || event.key === 'ArrowDown') && (target as HTMLInputElement).type !== 'date') {
      event.preventDefault();
      const cell = [...row.children].findIndex((each) => each.contains(target));
      if (!event.altKey) goTo(up ? row.previousElementSibling : row.nextElementSibling, cell);
      else if (view.may.edit) void onPlace(line, Math.max(1, view.lines.indexOf(line) + (up ? 0 : 2))).then(() => requestAnimationFrame(() => goTo(body.current?.querySelector(`[data-line="${line.id}"]`), cell)));
    }
  };
  const shared = view.lines.some((line) => line.price.share !== undefined);
  const figure = (text: string, wide = false) => <th scope="col" className={classes(css.figure, wide && css.wide)}>{text}</th>;
  return (
    <table className={css.table} aria-label={view.number}>
      <thead>
        <tr>
          <th scope="col" className={css.held}>{t('ledger.line')}</th>
          <th scope="col" className={classes(css.what, css.held)}>{t('ledger.what')}</th>
          {figure(t('ledger.quantity'))}
          {figure(t('ledger.list'))}
          {figure(t('ledger.granted'), true)}
          {figure(t('ledger.discount'))}
          {figure(t('ledger.off'), true)}
          {figure(t('ledger.unitNet'))}
          {view.may.seeCosts && figure(t('ledger.marginPercent'))}
          {shared && figure(t('ledger.wholeQuote'), true)}
          {figure(`${t('ledger.net')} ${view.currency}`)}
          <td />
        </tr>
      </thead>
      <tbody ref={body} onKeyDown={keys}>
        {view.lines.map((line) => <LineRow key={line.id} line={line} view={view} shared={shared} open={openLine === line.id} {...acts} />)}
      </tbody>
    </table>
  );
}
