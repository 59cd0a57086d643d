import { CircleCheck, Info, TriangleAlert } from 'lucide-react';
import type { BenchPicture, BenchView } from '../../core/quoting';
import { money, number, own, percent } from '../../i18n';
import { classes } from '../../ui';
import { Walk } from '../parts/Walk';
import { useSpeech } from '../speech';
import css from './bench.module.css';
import type { Words } from './words';

/** Money first, then mass, time and the rest, then how the price comes about. */
export function Side({ picture, view, words }: { picture: BenchPicture; view: BenchView; words: Words }) {
  const { t, language } = useSpeech();
  const { tariff, terms, outline } = view;
  const { line, price, state, leadDays, figures } = picture;
  const soFar = price.open.length > 0 ? ` ${t('bench.soFar')}` : '';
  const figure = (id: string, value: string | null): string => {
    if (value === null) return '·';
    const calculation = outline.calculations.find((each) => each.id === id);
    if (calculation?.type !== 'number') return value;
    const unit = calculation.unit ?? '';
    return `${number(value, language, calculation.decimals ?? 2)}${unit ? ` ${unit}` : ''}`;
  };
  return (
    <aside className={css.side} tabIndex={0} aria-label={t('bench.money')}>
      <div>
        <p className={css.netFigure}><span>{t('bench.net')} {tariff.currency}{soFar}</span><b data-testid="net">{money(line.unitNet, language, tariff.decimals)}</b></p>
        <dl className={css.facts}>
          <dt>{t('bench.list')}</dt><dd className={css.figure}>{money(price.list, language, tariff.decimals)}</dd>
          {line.cost !== undefined && <><dt>{t('bench.cost')}</dt><dd className={css.figure}>{money(line.unitCost ?? '0', language, tariff.decimals)}</dd></>}
          {line.margin !== undefined && <><dt>{t('bench.margin')}</dt><dd className={css.figure}>{percent(line.margin, language, 1)}</dd></>}
        </dl>
        {price.unpriced.length > 0 && <p className={css.rowError}>{t('bench.unpriced', { items: price.unpriced.join(', ') })}</p>}
      </div>
      <dl className={css.facts} aria-label={t('bench.figures')}>
        <dt>{t('bench.lead')}</dt><dd className={css.figure}>{leadDays === null ? '·' : t('bench.days', { count: leadDays })}</dd>
        {figures.map(({ id, value }) => [<dt key={`${id}t`}>{words.row(id)}</dt>, <dd key={`${id}d`} className={css.figure}>{figure(id, value)}</dd>])}
      </dl>
      {state.complete && price.unpriced.length === 0 && <p className={css.ready}><CircleCheck size={15} aria-hidden style={{ flex: 'none' }} />{t('bench.ready')}</p>}
      {state.messages.length > 0 && (
        <ul aria-label={t('bench.notes')}>
          {state.messages.map((message) => (
            <li key={message.rule} className={classes(css.message, message.severity === 'warning' && css.messageWarning)}>
              {message.severity === 'warning' ? <TriangleAlert size={14} aria-hidden /> : <Info size={14} aria-hidden />}
              <span><b>{t(`severity.${message.severity}`)}.</b> {own(message.text, language)}</span>
            </li>
          ))}
        </ul>
      )}
      <section aria-label={t('ledger.walk')}>
        <h2 className={css.sideTitle}>{t('ledger.walk')}</h2>
        <Walk price={line} parts={price} quantity={terms.quantity} currency={tariff.currency} decimals={tariff.decimals} />
      </section>
    </aside>
  );
}
