import type { PointerEvent } from 'react';
import { ticks as ticksIn } from 'd3-array';
import { exact, Exact } from '../../../core/exact';
import type { AllowedRange } from '../../../core/engine';
import css from '../sheet/number.module.css';

interface Props {
  least: string;
  most: string;
  step: string;
  allowed: readonly AllowedRange[];
  value: string | undefined;
  label: string;
  /** How a value of the model is written for the person. */
  write: (value: string) => string;
  onPick: (value: string) => void;
}

/** As wide as it is at most; what is narrower is this, shrunk. */
const width = 300;
const percent = (pixels: number): string => `${String((pixels / width) * 100)}%`;

/**
 * A little ruler: the whole range as a line, the allowed stretches in bold, the value as a dovetail. Drag or
 * click to set.
 */
export function Gauge({ least, most, step, allowed, value, label, write, onPick }: Props) {
  const longest = Math.max(write(least).length, write(most).length);
  // Letters of a figure at an end want room beside it.
  const inset = Math.max(18, longest * 4);
  const [first, last] = [Number(least), Number(most)];
  // The whole of d3's scale would be a thirtieth of the Bench's script.
  const each = (width - 2 * inset) / (last === first ? 1 : last - first);
  const x = (at: number) => inset + (at - first) * each;
  const pick = (event: PointerEvent<HTMLElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = first + (((event.clientX - box.left) / box.width) * width - inset) / each;
    const steps = Math.round((at - first) / Number(step));
    const nearest = Exact.max(least, Exact.min(most, exact(least).plus(exact(step).times(steps))));
    onPick(nearest.toString());
  };
  // A tick between two steps would mark what cannot be had.
  const ticks = ticksIn(first, last, longest > 4 ? 4 : 7).filter((tick) =>
    Number.isInteger(Number(((tick - first) / Number(step)).toFixed(6))),
  );
  const half = Math.min(2, (Number(step) / 2) * each);
  const [from = first, next = last] = ticks;
  // Ticks stand at even distances: each is amid a cell of its own.
  const cell = ticks.length > 1 ? (next - from) * each : 2 * inset;
  const stretches = allowed.map((range) => {
    const [begin, end] = [percent(x(Number(range.least)) - half), percent(x(Number(range.most)) + half)];
    return `transparent ${begin}, var(--spruce) ${begin} ${end}, transparent ${end}`;
  });
  return (
    <div
      className={css.gauge}
      role="img"
      aria-label={label}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        pick(event);
      }}
      onPointerMove={(event) => {
        if (event.buttons === 1) pick(event);
      }}
    >
      <div className={css.gaugeMarks}>
        {value !== undefined && (
          <i className={css.gaugeMark} style={{ marginLeft: percent(x(Number(value)) - 6) }} />
        )}
      </div>
      <div className={css.gaugeLine} style={{ margin: `0 ${percent(inset)}` }} />
      {stretches.length > 0 && (
        <div
          className={css.gaugeAllowed}
          style={{ background: `linear-gradient(90deg, ${stretches.join(', ')})` }}
        />
      )}
      <div className={css.gaugeTicks}>
        {ticks.map((tick, index) => (
          <span
            key={tick}
            style={{
              width: percent(cell),
              marginLeft: index === 0 ? percent(x(from) - cell / 2) : undefined,
            }}
          >
            {write(String(tick))}
          </span>
        ))}
      </div>
    </div>
  );
}
