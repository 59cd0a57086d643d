/** Drawings and lines of time as SVG: every format takes its pictures from here. */
import { writeSvg } from '../../../core/drawing';
import type { Node, PaperDocument } from '../../../core/paper';
import { number } from '../../../i18n';
import { ink, quiet } from './paper-colours';

/** A node that is a picture made of lines. */
export type Drawn = Extract<Node, { is: 'drawing' | 'timeline' }>;

/** The picture, and how wide it is to how high; with words and dimensions only, its figures are drawn elsewhere. */
export function svgOf(
  node: Drawn,
  { language, colour, title }: Pick<PaperDocument, 'language' | 'colour' | 'title'>,
  wordsOnly = false,
): { svg: string; ratio: number } {
  const svg =
    node.is === 'drawing'
      ? writeSvg(node.view, {
          title: `${title}, ${node.caption}`,
          language,
          wordsOnly,
          write: (length) => number(String(Math.round(length)), language, 0),
        })
      : timelineSvg(node, colour);
  const [, , , width = '1', height = '1'] = /viewBox="(\S+) (\S+) (\S+) (\S+)"/.exec(svg) ?? [];
  return { svg, ratio: Number(width) / Math.max(Number(height), 1) };
}

const day = (iso: string): number => Date.parse(`${iso}T00:00:00Z`);
const escaped = (text: string): string =>
  text.replace(
    /[&<>"]/g,
    (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter] as string,
  );

/** Bars from day to day, under a line with the years on it. */
function timelineSvg({ bars, from, to, ticks }: Extract<Node, { is: 'timeline' }>, colour: string): string {
  const [width, left, row, top] = [480, 150, 22, 20];
  const span = Math.max(day(to) - day(from), 1);
  const x = (iso: string): number =>
    left + ((width - left - 6) * Math.min(Math.max(day(iso) - day(from), 0), span)) / span;
  const height = top + bars.length * row + 8;
  const clear = ticks.filter(({ at }, index) => index === 0 || x(at) - x(ticks[0]?.at ?? at) > 70);
  const marks = clear.map(
    ({ at, text }) =>
      `<path d="M${x(at).toFixed(1)} ${String(top - 4)}V${String(height - 6)}" stroke="#c9c0ae" stroke-width="0.6" fill="none"/>` +
      `<text x="${(x(at) + 2).toFixed(1)}" y="${String(top - 8)}" font-size="7.5" fill="${quiet}">${escaped(text)}</text>`,
  );
  const drawn = bars.map((bar, index) => {
    const y = top + index * row;
    const [begin, end] = [x(bar.from), x(bar.to)];
    const name = bar.name.length > 34 ? `${bar.name.slice(0, 33)}…` : bar.name;
    return (
      `<text x="0" y="${String(y + 13)}" font-size="8" fill="${ink}">${escaped(name)}</text>` +
      `<rect x="${begin.toFixed(1)}" y="${String(y + 4)}" width="${Math.max(end - begin, 2).toFixed(1)}" height="13" rx="2" fill="${colour}"/>` +
      (bar.note === '' || end - begin < 70
        ? ''
        : `<text x="${(begin + 5).toFixed(1)}" y="${String(y + 13)}" font-size="7.5" fill="#ffffff">${escaped(bar.note)}</text>`)
    );
  });
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${String(width)} ${String(height)}" width="${String(width)}" height="${String(height)}">` +
    `<g font-family="sans-serif">${marks.join('')}${drawn.join('')}</g></svg>`
  );
}
