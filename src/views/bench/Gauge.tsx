import { useRef, type PointerEvent } from 'react';
import { ticks as ticksIn } from 'd3-array';
import { exact, Exact } from '../../core/exact';
import type { AllowedRange } from '../../core/engine';
import css from './number.module.css';

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

const [width, height] = [300, 34];

/** A little ruler: the whole range as a line, the allowed stretches in bold, the value as a dovetail. Drag or click to set. */
export function Gauge({ least, most, step, allowed, value, label, write, onPick }: Props) {
  const ref = useRef<SVGSVGElement>(null);
  const longest = Math.max(write(least).length, write(most).length);
  // Letters of a figure at an end want room beside it.
  const inset = Math.max(18, longest * 4);
  const [first, last] = [Number(least), Number(most)];
  // The whole of d3's scale would be a thirtieth of the Bench's script.
  const each = (width - 2 * inset) / (last === first ? 1 : last - first);
  const x = (at: number) => inset + (at - first) * each;
  const pick = (event: PointerEvent<SVGSVGElement>) => {
    const box = ref.current?.getBoundingClientRect();
    if (!box) return;
    const at = first + (((event.clientX - box.left) / box.width) * width - inset) / each;
    const steps = Math.round((at - first) / Number(step));
    const nearest = Exact.max(least, Exact.min(most, exact(least).plus(exact(step).times(steps))));
    onPick(nearest.toString());
  };
  // A tick between two steps would mark what cannot be had.
  const ticks = ticksIn(first, last, longest > 4 ? 4 : 7).filter((tick) => Number.isInteger(Number(((tick - first) / Number(step)).toFixed(6))));
  const half = (Number(step) / 2) * ((width - 2 * inset) / Math.max(Number(step), last - first));
  return (
    <svg
      ref={ref} className={css.gauge} viewBox={`0 0 ${String(width)} ${String(height)}`} role="img" aria-label={label}
      onPointerDown={(event) => { event.currentTarget.setPointerCapture(event.pointerId); pick(event); }}
      onPointerMove={(event) => { if (event.buttons === 1) pick(event); }}
    >
      <line className={css.gaugeLine} x1={inset} x2={width - inset} y1={14} y2={14} />
      {ticks.map((tick) => <line key={tick} className={css.gaugeLine} x1={x(tick)} x2={x(tick)} y1={14} y2={19} />)}
      {ticks.map((tick) => <text key={tick} x={x(tick)} y={31}>{write(String(tick))}</text>)}
      {allowed.map((range) => <line key={range.least} className={css.gaugeAllowed} x1={x(Number(range.least)) - Math.min(2, half)} x2={x(Number(range.most)) + Math.min(2, half)} y1={14} y2={14} />)}
      {value !== undefined && <path className={css.gaugeMark} d={`M${String(x(Number(value)) - 6)},1 h12 l-3,13 h-6 Z`} />}
    </svg>
  );
}
