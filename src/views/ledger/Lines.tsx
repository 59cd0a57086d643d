import type { QuoteView } from '../../core/quoting';
import { classes } from '../../ui';
import { useSpeech } from '../speech';
import css from './ledger.module.css';
import { LineRow, type LineActs } from './LineRow';

interface Props extends LineActs {
  view: QuoteView;
  /** The line whose walk is open. */
  openLine: string | undefined;
}

/** The lines of a quote. */
export function Lines({ view, openLine, ...acts }: Props) {
  const { t } = useSpeech();
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
          {figure(t('ledger.granted'))}
          {figure(t('ledger.discount'))}
          {figure(t('ledger.off'), true)}
          {figure(t('ledger.unitNet'))}
          {view.may.seeCosts && figure(t('ledger.marginPercent'))}
          {shared && figure(t('ledger.wholeQuote'), true)}
          {figure(`${t('ledger.net')} ${view.currency}`)}
          <td />
        </tr>
      </thead>
      <tbody>
        {view.lines.map((line) => <LineRow key={line.id} line={line} view={view} shared={shared} open={openLine === line.id} {...acts} />)}
      </tbody>
    </table>
  );
}
