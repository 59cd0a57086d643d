/**
 * Room for the figures of dimensions: letters have a size on the paper, whatever the scale, and their lines
 * must stand that far out.
 */
import type { DimensionLine, Spot, View } from './views';

/** So many letters must fit between what is measured and its dimension line. */
const least = 2.2;

const outward = ({ leads, upright }: DimensionLine): number[] =>
  leads.map(([from, to]) => (upright ? to[0] - from[0] : to[1] - from[1]));
/** How near the line comes to what it measures. */
const distance = (dimension: DimensionLine): number => Math.min(...outward(dimension).map(Math.abs));
const sideOf = (dimension: DimensionLine): string =>
  `${String(dimension.upright)} ${String((outward(dimension)[0] ?? 0) < 0)}`;

/**
 * The view with its dimension lines far enough out for letters of this height; those of one side keep their
 * order and proportion.
 */
export function withRoom(view: View, letter: number): View {
  const nearest = new Map<string, number>();
  for (const dimension of view.dimensions)
    nearest.set(sideOf(dimension), Math.min(nearest.get(sideOf(dimension)) ?? Infinity, distance(dimension)));
  const frame = { ...view.frame };
  const dimensions = view.dimensions.map((dimension): DimensionLine => {
    const near = nearest.get(sideOf(dimension)) ?? 0;
    if (near <= 0 || near >= least * letter) return dimension;
    const further =
      distance(dimension) * ((least * letter) / near - 1) * ((outward(dimension)[0] ?? 0) < 0 ? -1 : 1);
    const out = ([u, v]: Spot): Spot => (dimension.upright ? [u + further, v] : [u, v + further]);
    const line = [out(dimension.line[0]), out(dimension.line[1])] as const;
    const [[u, v]] = line;
    if (dimension.upright) [frame.left, frame.right] = [Math.min(frame.left, u), Math.max(frame.right, u)];
    else [frame.bottom, frame.top] = [Math.min(frame.bottom, v), Math.max(frame.top, v)];
    return { ...dimension, line, leads: dimension.leads.map(([from, to]) => [from, out(to)] as const) };
  });
  return { ...view, dimensions, frame };
}
