import { scaleLinear } from 'd3-scale';
import { exact, Exact } from '../../core/exact';
import type { DeskView } from '../../contract';
import { money, percent } from '../../i18n';
import { useSpeech } from '../speech';
import css from './quota.module.css';

const [width, height] = [320, 34];

/**
 * The year at a glance: won, what is open at its weight, and what is still to go; the parts join like a
 * board.
 */
export function Quota({ target, won, open, weight }: NonNullable<DeskView['quota']>) {
  const { t, language } = useSpeech();
  const weighted = exact(open).times(weight);
  const gap = Exact.max(0, exact(target).minus(won).minus(weighted));
  const total = Exact.max(target, exact(won).plus(weighted));
  const x = scaleLinear().domain([0, total.toNumber()]).range([0, width]);
  const parts = [
    { id: 'won' as const, from: 0, to: Number(won), text: t('desk.won'), amount: won },
    {
      id: 'open' as const,
      from: Number(won),
      to: exact(won).plus(weighted).toNumber(),
      text: t('desk.open', { weight: percent(weight, language) }),
      amount: weighted.toString(),
    },
    {
      id: 'gap' as const,
      from: exact(won).plus(weighted).toNumber(),
      to: total.toNumber(),
      text: t('desk.gap'),
      amount: gap.toString(),
    },
  ];
  const pin = 7;
  const board = (from: number, to: number): string => {
    const [a, b] = [x(from), x(to)];
    const tail =
      to < total.toNumber()
        ? `L${String(b)},${String(height * 0.32)} L${String(b + pin)},${String(height * 0.2)} L${String(b + pin)},${String(height * 0.8)} L${String(b)},${String(height * 0.68)}`
        : '';
    return `M${String(a)},0 L${String(b)},0 ${tail} L${String(b)},${String(height)} L${String(a)},${String(height)} Z`;
  };
  return (
    <section className={css.panel} aria-label={t('desk.quota')}>
      <h2 className={css.section}>
        {t('desk.quota')}{' '}
        <span className={css.quiet}>{t('desk.of', { target: `${money(target, language, 0)} EUR` })}</span>
      </h2>
      <svg
        viewBox={`0 0 ${String(width)} ${String(height)}`}
        role="img"
        aria-label={parts.map((part) => `${part.text}: ${money(part.amount, language, 0)} EUR`).join('; ')}
      >
        {[...parts]
          .reverse()
          .map((part) =>
            part.to > part.from ? (
              <path key={part.id} className={css[part.id]} d={board(part.from, part.to)} />
            ) : null,
          )}
      </svg>
      <div className={css.legend}>
        {parts.map((part) => [
          <span key={`${part.id}s`} className={`${css.swatch ?? ''} ${css[part.id] ?? ''}`} />,
          <span key={`${part.id}t`}>{part.text}</span>,
          <span key={`${part.id}a`} className={css.figure}>
            {money(part.amount, language, 0)} EUR
          </span>,
        ])}
      </div>
    </section>
  );
}
