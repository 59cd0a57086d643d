/** A view as an SVG file of its own: the same figures as on screen, in millimetres, with dimensions. */
import type { Looks } from '../model';
import { withRoom } from './room';
import type { DimensionLine, Figure, Spot, View } from './views';

/** Paint of a layer on paper. */
export const paints: Readonly<Record<Looks, string>> = {
  steel: '#c9d0d2',
  dark: '#5b6166',
  concrete: '#ddd6c8',
  ground: '#e9e2d2',
  vehicle: '#f6f1e4',
  glass: '#dbe6ea',
  accent: '#1d5144',
  paper: '#fffdf8',
};

/** Height of the letters of dimensions for a view of this size, and of the arrows beside it. */
export const letterHeight = ({ frame }: View): number =>
  Math.max(frame.right - frame.left, (frame.top - frame.bottom) * 1.6) / 38;

/** Outline of a figure as an SVG path; upwards is negative there. */
export function pathOf(figure: Figure): string {
  if (figure.kind === 'polygon')
    return `${figure.points.map(([u, v], index) => `${index === 0 ? 'M' : 'L'}${short(u)} ${short(-v)}`).join('')}Z`;
  const {
    centre: [u, v],
    radius,
  } = figure;
  return `M${short(u - radius)} ${short(-v)}a${short(radius)} ${short(radius)} 0 1 0 ${short(2 * radius)} 0a${short(radius)} ${short(radius)} 0 1 0 ${short(-2 * radius)} 0Z`;
}

/** The strokes of a dimension as an SVG path: leads, line, and a tick across each end. */
export function dimensionPath({ line: [a, b], leads }: DimensionLine, letter: number): string {
  const tick = letter * 0.38;
  const stroke = ([u, v]: Spot, [s, t]: Spot) => `M${short(u)} ${short(-v)}L${short(s)} ${short(-t)}`;
  const beyond = ([from, to]: readonly [Spot, Spot]): string => {
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
    const [du, dv] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
    return stroke([from[0] + du * tick, from[1] + dv * tick], [to[0] + du * tick, to[1] + dv * tick]);
  };
  const slash = ([u, v]: Spot) => stroke([u - tick, v - tick], [u + tick, v + tick]);
  return [stroke(a, b), ...leads.map(beyond), slash(a), slash(b)].join('');
}

/** Where the figure of a dimension is written, and whether it stands upright. */
export function dimensionText(
  { line: [a, b], upright }: DimensionLine,
  letter: number,
): { x: number; y: number; turn: number } {
  const [u, v] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  // Between ticks that stand close there is no room: the figure stands behind the upper end.
  if (upright && Math.abs(a[1] - b[1]) < letter * 3)
    return { x: u - letter * 0.35, y: -Math.max(a[1], b[1]) - letter * 2, turn: -90 };
  return upright ? { x: u - letter * 0.35, y: -v, turn: -90 } : { x: u, y: -v - letter * 0.35, turn: 0 };
}

/** Left, upper edge and size, in millimetres; downwards is positive. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The view box that holds a view with letters of this height. */
export function boxOf(view: View, letter: number): Box {
  const edge = letter * 1.6;
  const { left, right, bottom, top } = view.frame;
  return { x: left - edge, y: -top - edge, width: right - left + 2 * edge, height: top - bottom + 2 * edge };
}

/** The paint of a figure, in the light that it stands in. */
export function paintOf({ looks, shade = 0 }: Figure): string {
  const paint = paints[looks];
  if (shade === 0) return paint;
  const part = (from: number): string => {
    const value = parseInt(paint.slice(from, from + 2), 16);
    const lit = shade > 0 ? value + (255 - value) * shade : value * (1 + shade);
    return Math.round(Math.max(0, Math.min(255, lit)))
      .toString(16)
      .padStart(2, '0');
  };
  return `#${part(1)}${part(3)}${part(5)}`;
}

/** A view as it is drawn: dimensions far enough out, its box, the height of letters, how wide lines are. */
export interface SizedView {
  view: View;
  box: Box;
  letter: number;
  thin: number;
}

/** A view with room for its letters. */
export function sizedView(seen: View): SizedView {
  const letter = letterHeight(seen);
  const view = withRoom(seen, letter);
  return { view, box: boxOf(view, letter), letter, thin: letter / 16 };
}

/** Colour of the edges of figures. */
export const edgeColour = '#23262a';

interface Writing {
  title: string;
  language: string;
  /** The text of a length. */
  write: (millimetres: number) => string;
  /** Without figures, for pages that draw them by themselves. */
  wordsOnly?: boolean;
}

/** An SVG document of a view, to scale in millimetres. */
export function writeSvg(seen: View, { title, language, write, wordsOnly = false }: Writing): string {
  const { view, box, letter, thin: width } = sizedView(seen);
  const thin = short(width);
  const figures = (wordsOnly ? [] : view.figures).map(
    (figure) => `<path d="${pathOf(figure)}" fill="${paintOf(figure)}" class="${figure.layer}"/>`,
  );
  const words = view.words.map(
    ({ at: [u, v], height, text }) =>
      `<text x="${short(u)}" y="${short(-v)}" font-size="${short(height)}">${escaped(text[language] ?? Object.values(text)[0] ?? '')}</text>`,
  );
  const dimensions = view.dimensions.map((dimension) => {
    const { x, y, turn } = dimensionText(dimension, letter);
    return `<path d="${dimensionPath(dimension, letter)}" fill="none"/><text x="${short(x)}" y="${short(y)}" font-size="${short(letter)}"${turn === 0 ? '' : ` transform="rotate(${String(turn)} ${short(x)} ${short(y)})"`}>${escaped(write(dimension.length))}</text>`;
  });
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${[box.x, box.y, box.width, box.height].map(short).join(' ')}" width="${short(box.width)}mm" height="${short(box.height)}mm"><title>${escaped(title)}</title>` +
    `<g stroke="${edgeColour}" stroke-width="${thin}" stroke-linejoin="round">${figures.join('')}</g>` +
    `<g fill="#23262a" font-family="sans-serif" text-anchor="middle">${words.join('')}</g>` +
    `<g stroke="#40536a" stroke-width="${thin}">${dimensions.map((each) => each.replace('<text', '<text stroke="none" fill="#23262a" font-family="sans-serif" text-anchor="middle"')).join('')}</g></svg>`
  );
}

const short = (value: number): string => String(Math.round(value * 100) / 100 + 0);
const escaped = (text: string): string =>
  text.replace(
    /[&<>"]/g,
    (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter] as string,
  );
