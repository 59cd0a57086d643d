import { createContext, lazy, memo, Suspense, use, useState, type ReactNode } from 'react';
import { runningIn } from '../../../core/pricing';
import { promisedDay, shippingDays } from '../../../core/production';
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

// Asked for now and then: it comes when it is.
const AtQuantities = lazy(() => import('./AtQuantities'));

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
export const Side = memo(function Side(props: Props) {
  const { bench, view, words, frozen, large, onLarge, onGo } = props;
  const { t } = useSpeech();
  return (
    <aside className={css.side} tabIndex={0} aria-label={t('bench.money')}>
      <DrawingPanel bench={bench} view={view} words={words} large={large} onLarge={onLarge} onGo={onGo} />
      <NetFigure view={view} />
      <Warnings bench={bench} frozen={frozen} />
      <Figures {...props} />
    </aside>
  );
}, showsTheSame);

function showsTheSame(before: Props, after: Props): boolean {
  return (
    before.bench.picture === after.bench.picture &&
    before.bench.content === after.bench.content &&
    before.bench.scene === after.bench.scene &&
    before.bench.servedLead === after.bench.servedLead &&
    before.view === after.view &&
    before.words === after.words &&
    before.large === after.large
  );
}

/** A figure, and how it comes about. */
interface Figure {
  id: string;
  name: string;
  value: string;
  how: ReactNode;
}

/** The figures; one at a time is open. */
function Figures(props: Props) {
  const { t } = useSpeech();
  const [open, setOpen] = useState<string | null>(null);
  const figures = [...useMoney(props), ...useTimes(props), ...calculationsOf(props)];
  return (
    <div className={css.figures} aria-label={t('bench.figures')} role="group">
      {figures.map(({ id, name, value, how }) => (
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
              {how}
            </div>
          )}
        </div>
      ))}
    </div>
  );
}

/** What it lists at and comes to, and for those who may see it what it costs and earns. */
function useMoney({ bench, view }: Props): Figure[] {
  const { t, language } = useSpeech();
  const { line, price } = bench.picture;
  const { decimals, currency } = view.tariff;
  const amount = (value: string) => money(value, language, decimals);
  const figures: Figure[] = [
    {
      id: 'list',
      name: t('bench.list'),
      value: amount(price.list),
      how: <ListParts price={price} decimals={decimals} />,
    },
    {
      id: 'net',
      name: t('bench.net'),
      value: amount(line.unitNet),
      how: (
        <>
          <Walk price={line} quantity={view.terms.quantity} currency={currency} decimals={decimals} />
          <Suspense>
            <AtQuantities {...{ bench, view }} />
          </Suspense>
        </>
      ),
    },
  ];
  if (line.cost !== undefined)
    figures.push({
      id: 'cost',
      name: t('bench.cost'),
      value: amount(line.unitCost ?? '0'),
      how: <CostParts bench={bench} view={view} />,
    });
  if (line.margin !== undefined)
    figures.push({
      id: 'margin',
      name: t('bench.margin'),
      value: percent(line.margin, language, 1),
      how: (
        <p className={shared.quiet}>
          {t('bench.marginHow', { net: amount(line.net), cost: amount(line.cost ?? '0') })}
        </p>
      ),
    });
  return figures;
}

/** When it is ready, and the day that can be promised; undefined while the server has not said yet. */
function useTimes({ bench, view }: Props): Figure[] {
  const { t, language } = useSpeech();
  const days = view.may.making ? bench.picture.leadDays : bench.servedLead;
  const lead: Figure = {
    id: 'lead',
    name: t('bench.lead'),
    value: days === undefined ? '…' : days === null ? '·' : t('bench.days', { count: days }),
    how: view.may.making ? (
      <LeadParts bench={bench} view={view} />
    ) : (
      <p className={shared.quiet}>{t('bench.leadServed')}</p>
    ),
  };
  if (days === null || days === undefined) return [lead];
  const promised: Figure = {
    id: 'promised',
    name: t('bench.promised'),
    value: date(promisedDay(view.today, days, view.delivery.calendar, view.delivery), language),
    how: (
      <p className={shared.quiet}>
        {t('bench.promisedHow', {
          days: number(String(days), language),
          shipping: shippingDays,
          date: date(view.today, language),
        })}
      </p>
    ),
  };
  return [lead, promised];
}

/** The figures that the model calculates; a point while one is not known. */
function calculationsOf({ bench, view, words, onGo }: Props): Figure[] {
  const written = (id: string, value: string | null): string => {
    if (value === null) return '·';
    const calculation = view.outline.calculations.find((each) => each.id === id);
    return calculation?.type === 'number'
      ? words.figure(value, calculation.unit ?? '', calculation.decimals ?? 2)
      : value;
  };
  return bench.picture.figures.map(({ id, value }) => ({
    id,
    name: words.row(id),
    value: written(id, value),
    how: <FormulaParts id={id} bench={bench} view={view} words={words} onGo={onGo} />,
  }));
}
