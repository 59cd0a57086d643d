/**
 * Drawings on a page. Figures are drawn as lines of the page itself, and only words and dimensions as SVG: a
 * drawing has hundreds of figures, and each would be read as an element of its own.
 */
import type { CanvasElement, Content } from 'pdfmake/interfaces';
import { edgeColour, paintOf, sizedView, type View } from '../../../../core/drawing';
import { quiet } from '../paper-colours';
import { svgOf, type Drawn } from '../node-svg';
import type { PaperDocument } from '../../../../core/paper';
import { words } from './pdf-text';

/** Height of a drawing on a page at most. */
export const mostHeight = 215;

/** Room above a drawing. */
const above = 4;

/** A drawing or a line of time, with what it is called. */
export function drawnOf(
  node: Drawn,
  { document, width }: { document: PaperDocument; width: number },
): Content[] {
  const drawing = node.is === 'drawing';
  const { svg, ratio } = svgOf(node, document, drawing);
  const across = Math.min(width, mostHeight * ratio);
  return [
    {
      unbreakable: true,
      stack: [
        // Beneath the words, which take the room that both need.
        ...(drawing ? [{ canvas: figuresOf(node.view, across), relativePosition: { x: 0, y: above } }] : []),
        { svg, width: across, font: 'Archivo', margin: [0, above, 0, 2] },
        ...(drawing ? [words(node.caption, { fontSize: 8, color: quiet })] : []),
      ],
      margin: [0, 0, 0, 8],
    },
  ];
}

/** Figures of a view that is so many points wide, those behind first. */
function figuresOf(seen: View, across: number): CanvasElement[] {
  const { view, box, thin } = sizedView(seen);
  const scale = across / box.width;
  const x = (u: number): number => (u - box.x) * scale;
  const y = (v: number): number => (-v - box.y) * scale;
  return view.figures.map((figure): CanvasElement => {
    const looks = { color: paintOf(figure), lineColor: edgeColour, lineWidth: thin * scale };
    if (figure.kind === 'circle') {
      const [u, v] = figure.centre;
      const radius = figure.radius * scale;
      return { type: 'ellipse', x: x(u), y: y(v), r1: radius, r2: radius, ...looks };
    }
    return {
      type: 'polyline',
      points: figure.points.map(([u, v]) => ({ x: x(u), y: y(v) })),
      closePath: true,
      lineJoin: 'round',
      ...looks,
    };
  });
}
