import { reachOf, type Limit, type Reach } from '../../../core/pricing';
import { percent } from '../../../i18n';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './reach.module.css';

const width = 44;

/**
 * Where a discount or margin stands between target, limit and floor: a small scale, and the word for it where
 * it needs somebody else.
 */
export function ReachMark({ limit, figure }: { limit: Limit; figure: string }) {
  const { t, language } = useSpeech();
  const reach: Reach = reachOf(limit, figure);
  const [target, border, floor] = [Number(limit.target), Number(limit.limit), Number(limit.floor)];
  // A fifth of the way from target to floor is left on either side.
  const room = (floor - target) / 5;
  const x = (value: number) =>
    Math.min(width - 3, Math.max(3, ((value - target + room) / (floor - target + 2 * room)) * width));
  const at = x(Number(figure));
  const told = t(`ledger.reach.${reach}`);
  return (
    <span
      className={classes(css.mark, css[reach])}
      title={t('ledger.reachWhy', {
        reach: told,
        target: percent(limit.target, language),
        limit: percent(limit.limit, language),
        floor: percent(limit.floor, language),
      })}
    >
      <svg viewBox={`0 0 ${String(width)} 7`} width={width} height={7} role="img" aria-label={told}>
        <line x1={0} x2={width} y1={5.5} y2={5.5} className={css.rail} />
        {[target, border, floor].map((value, index) => (
          <line key={index} x1={x(value)} x2={x(value)} y1={2.5} y2={6.5} className={css.tick} />
        ))}
        <path d={`M${String(at - 3)} 0 L${String(at + 3)} 0 L${String(at)} 5 Z`} className={css.caret} />
      </svg>
      {(reach === 'beyondLimit' || reach === 'beyondFloor') && (
        <span className={css.word} aria-hidden>
          {told}
        </span>
      )}
    </span>
  );
}
