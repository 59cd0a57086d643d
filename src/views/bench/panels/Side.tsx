import { createContext, memo, use, useState, type ReactNode } from 'react';
import { runningIn } from '../../../core/pricing';
import { afterWorkingDays, shippingDays } from '../../../core/production';
import type { BenchView } from '../../../contract';
import { date, money, number, percent } from '../../../i18n';
import { Walk } from '../../parts/Walk';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { DrawingPanel } from '../drawing/DrawingPanel';
import { CostParts, FormulaParts, LeadParts, ListParts } from '../head/figures';
import css from './side.module.css';
import type { Bench } from '../session/useBench';
import { Warnings } from './Warnings';
import type { Words } from '../words';
import { closedMark, completeMark, openMark } from '../sheet/marks';

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
  large: boolean;
  onLarge: () => void;
  onGo: (row: string) => void;
}

/** The Bench as it is now, for the little that must not come a frame later than the sheet. */
export const BenchNow = createContext<Bench | null>(null);

function NetFigure({ view }: { view: BenchView }) {
  const { t, language } = useSpeech();
  const bench = use(BenchNow);
  if (!bench) return null;
  const { price, line, state } = bench.picture;
  const { currency, decimals } = view.tariff;
  return (
    <div>
      <p className={css.netFigure}>
        <span>
          {t('bench.net')} {currency}
          {price.open.length > 0 ? ` ${t('bench.soFar')}` : ''}
        </span>
        <b data-testid="net">{money(line.unitNet, language, decimals)}</b>
      </p>
      {runningIn(line).map(({ net, from, to, months }) => (
        <p key={`${from} ${to}`} className={css.recurs}>
          {t('bench.recurs', { net: money(net, language, decimals), months })}
        </p>
      ))}
      {price.unpriced.length > 0 && (
        <p className={shared.rowError}>{t('bench.unpriced', { items: price.unpriced.join(', ') })}</p>
      )}
      {state.complete && price.unpriced.length === 0 && (
        <p className={css.ready}>
          {completeMark}
          {t('bench.ready')}
        </p>
      )}
    </div>
  );
}

/** The drawing, then the figures, each of which opens how it comes about, then what to know. */
export const Side = memo(
  function Side({ bench, view, words, frozen, large, onLarge, onGo }: Props) {
    const { t, language } = useSpeech();
    const [open, setOpen] = useState<string | null>(null);
    const { tariff, terms, outline } = view;
    const { line, price, figures } = bench.picture;
    // Undefined while the server has not said yet.
    const leadDays = view.may.making ? bench.picture.leadDays : bench.servedLead;
    const amount = (value: string) => money(value, language, tariff.decimals);
    const figure = (id: string, value: string | null): string => {
      if (value === null) return '·';
      const calculation = outline.calculations.find((each) => each.id === id);
      return calculation?.type === 'number'
        ? words.figure(value, calculation.unit ?? '', calculation.decimals ?? 2)
        : value;
    };
    const row = (id: string, name: string, value: string, detail: ReactNode) => (
      <div key={id} className={css.figure}>
        <button
          type="button"
          className={css.opener}
          aria-expanded={open === id}
          title={t('bench.figure', { what: name })}
          onClick={() => setOpen(open === id ? null : id)}
        >
          {open === id ? openMark : closedMark}
          <span>{name}</span>
          <span className={shared.figure}>{value}</span>
        </button>
        {open === id && (
          <div className={css.detail} role="group" aria-label={t('bench.figure', { what: name })}>
            {detail}
          </div>
        )}
      </div>
    );
    return (
      <aside className={css.side} tabIndex={0} aria-label={t('bench.money')}>
        <DrawingPanel bench={bench} view={view} words={words} large={large} onLarge={onLarge} onGo={onGo} />
        <NetFigure view={view} />
        <Warnings bench={bench} frozen={frozen} />
        <div className={css.figures} aria-label={t('bench.figures')} role="group">
          {row(
            'list',
            t('bench.list'),
            amount(price.list),
            <ListParts price={price} decimals={tariff.decimals} />,
          )}
          {row(
            'net',
            t('bench.net'),
            amount(line.unitNet),
            <Walk
              price={line}
              quantity={terms.quantity}
              currency={tariff.currency}
              decimals={tariff.decimals}
            />,
          )}
          {line.cost !== undefined &&
            row(
              'cost',
              t('bench.cost'),
              amount(line.unitCost ?? '0'),
              <CostParts bench={bench} view={view} />,
            )}
          {line.margin !== undefined &&
            row(
              'margin',
              t('bench.margin'),
              percent(line.margin, language, 1),
              <p className={shared.quiet}>
                {t('bench.marginHow', { net: amount(line.net), cost: amount(line.cost ?? '0') })}
              </p>,
            )}
          {row(
            'lead',
            t('bench.lead'),
            leadDays === undefined ? '…' : leadDays === null ? '·' : t('bench.days', { count: leadDays }),
            view.may.making ? (
              <LeadParts bench={bench} view={view} />
            ) : (
              <p className={shared.quiet}>{t('bench.leadServed')}</p>
            ),
          )}
          {leadDays !== null &&
            leadDays !== undefined &&
            row(
              'promised',
              t('bench.promised'),
              date(afterWorkingDays(view.today, leadDays + shippingDays), language),
              <p className={shared.quiet}>
                {t('bench.promisedHow', {
                  days: number(String(leadDays), language),
                  shipping: shippingDays,
                  date: date(view.today, language),
                })}
              </p>,
            )}
          {figures.map(({ id, value }) =>
            row(
              id,
              words.row(id),
              figure(id, value),
              <FormulaParts id={id} bench={bench} view={view} words={words} onGo={onGo} />,
            ),
          )}
        </div>
      </aside>
    );
  },
  (before, after) =>
    before.bench.picture === after.bench.picture &&
    before.bench.content === after.bench.content &&
    before.bench.scene === after.bench.scene &&
    before.bench.servedLead === after.bench.servedLead &&
    before.view === after.view &&
    before.words === after.words &&
    before.large === after.large,
);
