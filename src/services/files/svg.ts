/**
 * Drawings in SVG made safe: of what is in one only the elements and attributes of drawing are written again, so
 * that nothing in it runs, and nothing is fetched by it. What is not known is left out, with all that is inside.
 */
import { SaxesParser, type SaxesTagPlain } from 'saxes';

/** A drawing that is safe, with its size where it says so; null where it is no drawing that can be read. */
export interface SafeDrawing {
  text: string;
  width: number | null;
  height: number | null;
}

const elements = new Set(
  `svg g defs symbol use title desc path rect circle ellipse line polyline polygon text tspan textPath
   linearGradient radialGradient stop pattern clipPath mask marker image`.split(/\s+/),
);
const attributes = new Set(
  `id class x y x1 y1 x2 y2 cx cy r rx ry fx fy d points width height viewBox preserveAspectRatio transform
   fill fill-opacity fill-rule stroke stroke-width stroke-opacity stroke-linecap stroke-linejoin
   stroke-miterlimit stroke-dasharray stroke-dashoffset opacity color display visibility clip-path clip-rule
   mask marker-start marker-mid marker-end markerWidth markerHeight markerUnits orient refX refY
   gradientUnits gradientTransform spreadMethod offset stop-color stop-opacity patternUnits
   patternContentUnits patternTransform clipPathUnits maskUnits maskContentUnits font-family font-size
   font-weight font-style text-anchor dominant-baseline letter-spacing dx dy rotate textLength lengthAdjust
   startOffset href style version vector-effect paint-order`.split(/\s+/),
);
/** What a value may call: colours, places, and parts of the drawing itself. */
const functions = new Set(
  'url rgb rgba hsl hsla matrix translate translatex translatey scale scalex scaley rotate skewx skewy'.split(
    ' ',
  ),
);
const deepest = 200;
const most = 200_000;

/** Makes a drawing safe; null where it is none, or one too deep or large. */
export function safeDrawing(source: string): SafeDrawing | null {
  const parser = new SaxesParser();
  const out: string[] = [];
  // Inside of something that is left out, how deep.
  let left = 0;
  let depth = 0;
  let count = 0;
  let size: SafeDrawing | null = null;
  let wrong = false as boolean;
  parser.on('error', () => {
    wrong = true;
  });
  parser.on('doctype', () => {
    // Entities of its own could be anything.
    wrong = true;
  });
  parser.on('opentag', (tag) => {
    depth += 1;
    count += 1;
    if (depth > deepest || count > most) wrong = true;
    if (wrong) return;
    const name = local(tag.name);
    if (left > 0 || !elements.has(name) || (depth === 1 && name !== 'svg')) {
      left += 1;
      return;
    }
    if (depth === 1)
      size = { text: '', width: lengthOf(tag, 'width', 2), height: lengthOf(tag, 'height', 3) };
    const own = Object.entries(tag.attributes).flatMap(([key, value]) => attributeOf(key, value, name));
    const space = depth === 1 ? ' xmlns="http://www.w3.org/2000/svg"' : '';
    out.push(`<${name}${space}${own.join('')}>`);
  });
  parser.on('text', (text) => {
    if (left === 0 && depth > 0) out.push(escaped(text));
  });
  parser.on('cdata', (text) => {
    if (left === 0 && depth > 0) out.push(escaped(text));
  });
  parser.on('closetag', (tag) => {
    depth -= 1;
    if (left > 0) left -= 1;
    else out.push(`</${local(tag.name)}>`);
  });
  try {
    parser.write(source).close();
  } catch {
    return null;
  }
  const found = size as SafeDrawing | null;
  return wrong || !found ? null : { ...found, text: out.join('') };
}

const local = (name: string): string => name.replace(/^svg:/, '');
const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** An attribute as it is written again; nothing where it is left out. */
function attributeOf(key: string, value: string, element: string): string[] {
  const name = key === 'xlink:href' ? 'href' : key;
  if (!attributes.has(name)) return [];
  if (name === 'href' && !safeReference(value, element)) return [];
  if (name !== 'href' && !safeValue(value)) return [];
  return [` ${name}="${escaped(value)}"`];
}

/** To something in the drawing itself, or to a picture that is in it as a whole. */
const safeReference = (value: string, element: string): boolean =>
  /^#[\w.-]+$/.test(value.trim()) ||
  (element === 'image' && /^data:image\/(?:png|jpeg|webp);base64,[A-Za-z0-9+/=\s]+$/.test(value.trim()));

/** Nothing that leads elsewhere: no address but of the drawing's own parts, no escapes that could hide one. */
const safeValue = (value: string): boolean =>
  !/[\\<>@]|\/\/|script|behavior|-moz-binding/i.test(value) &&
  [...value.matchAll(/([\w-]*)\s*\(/g)].every(([, name = '']) => functions.has(name.toLowerCase())) &&
  [...value.matchAll(/url\s*\(([^)]*)\)?/gi)].every(([, inner = '']) =>
    /^\s*["']?#[\w.-]+["']?\s*$/.test(inner),
  );

/** A side of the drawing in dots, as it is said, or by its frame. */
function lengthOf({ attributes: own }: SaxesTagPlain, side: 'width' | 'height', at: 2 | 3): number | null {
  const said = /^\s*(\d+(?:\.\d+)?)(?:px)?\s*$/.exec(own[side] ?? '')?.[1];
  const framed = (own.viewBox ?? '').trim().split(/[\s,]+/)[at];
  const length = Math.round(Number(said ?? framed));
  return length > 0 && length <= 1_000_000 ? length : null;
}
