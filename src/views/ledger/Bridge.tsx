import { scaleLinear } from 'd3-scale';
import css from './bridge.module.css';

/** A step of the bridge from list to net. */
export interface BridgeStep {
  key: string;
  name: string;
  /** What is said of it besides, such as its rate or why another did not count. */
  note?: string | undefined;
  amount: string;
  /** Running total after it. */
  total: string;
}

interface Props {
  label: string;
  steps: readonly BridgeStep[];
  /** The last bar: what it comes to. */
  net: { name: string; amount: string };
  /** How much of the net is cost, where it is known. */
  cost?: { name: string; amount: string } | undefined;
  shown: (amount: string, key: string) => string;
}

const width = 100;

/**
 * A price walk as a bridge: each step a bar from where the one before it ended. Lengths only; the figures
 * stand beside them.
 */
export function Bridge({ label, steps, net, cost, shown }: Props) {
  const ends = steps.map((step) => Number(step.total));
  const x = scaleLinear(
    [Math.min(0, ...ends), Math.max(1e-9, ...ends, Number(cost?.amount ?? 0))],
    [0, width],
  );
  const bar = (from: number, to: number, kind: string | undefined) => (
    <svg className={css.bar} viewBox={`0 0 ${String(width)} 6`} preserveAspectRatio="none" aria-hidden>
      <line x1={0} x2={width} y1={5.5} y2={5.5} className={css.rail} />
      <rect
        x={Math.min(x(from), x(to))}
        y={0}
        width={Math.max(0.6, Math.abs(x(to) - x(from)))}
        height={5}
        className={kind}
      />
    </svg>
  );
  return (
    <table className={css.bridge} aria-label={label}>
      <tbody>
        {steps.map((step, index) => (
          <tr key={step.key}>
            <td>
              {step.name}
              {step.note && <span className={css.note}>{step.note}</span>}
              {bar(
                ends[index - 1] ?? 0,
                ends[index] ?? 0,
                index === 0 ? css.whole : Number(step.amount) <= 0 ? css.less : css.more,
              )}
            </td>
            <td>{shown(step.amount, step.key)}</td>
          </tr>
        ))}
        <tr className={css.net}>
          <td>
            {net.name}
            {bar(0, Number(net.amount), css.whole)}
          </td>
          <td>{shown(net.amount, 'net')}</td>
        </tr>
        {cost && (
          <tr>
            <td>
              {cost.name}
              {bar(0, Number(cost.amount), css.cost)}
            </td>
            <td>{shown(cost.amount, 'cost')}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
