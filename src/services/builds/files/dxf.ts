/**
 * A view of a drawing as a DXF file: millimetres, a layer for each layer of the drawing, dimensions as
 * dimensions.
 */
import {
  AttachmentPoint,
  Colors,
  DxfWriter,
  LWPolylineFlags,
  MTextAttachmentPoint,
  Units,
  point2d,
  point3d,
} from '@tarikjabiri/dxf';
import { letterHeight, withRoom, type DimensionLine, type Spot, type View } from '../../../core/drawing';
import type { DrawingLayer, Looks } from '../../../core/model';

const colours: Readonly<Record<Looks, number>> = {
  steel: Colors.White,
  dark: Colors.White,
  concrete: Colors.Yellow,
  ground: Colors.Green,
  vehicle: Colors.Cyan,
  glass: Colors.Blue,
  accent: Colors.Red,
  paper: Colors.White,
};
const dimensionLayer = 'DIMENSIONS';

/** One view of a drawing as DXF, in millimetres, a layer each. */
export function writeDxf(view: View, layers: readonly DrawingLayer[], language: string): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const { id, looks } of layers) dxf.addLayer(id, colours[looks]);
  dxf.addLayer(dimensionLayer, Colors.Magenta);
  for (const figure of view.figures) {
    const layerName = figure.layer;
    if (figure.kind === 'circle') dxf.addCircle(at(figure.centre), figure.radius, { layerName });
    else
      dxf.addLWPolyline(
        figure.points.map(([u, v]) => ({ point: point2d(u, v) })),
        { layerName, flags: LWPolylineFlags.Closed },
      );
  }
  for (const {
    at: [u, v],
    height,
    text,
    layer,
  } of view.words)
    dxf.addText(point3d(u, v), height, text[language] ?? Object.values(text)[0] ?? '', { layerName: layer });
  const letter = letterHeight(view);
  withRoom(view, letter).dimensions.forEach((dimension, index) =>
    addDimension(dxf, dimension, letter, index + 1),
  );
  return dxf.stringify();
}

const at = ([u, v]: Spot) => point3d(u, v);

/**
 * The dimension itself for programs that draw it anew, and the block with its strokes for those that do not.
 */
function addDimension(
  dxf: DxfWriter,
  { line, leads, length, upright }: DimensionLine,
  letter: number,
  index: number,
): void {
  const [a, b] = line;
  const layerName = dimensionLayer;
  const middle = point3d(
    (a[0] + b[0]) / 2 - (upright ? letter : 0),
    (a[1] + b[1]) / 2 + (upright ? 0 : letter),
  );
  const block = dxf.addBlock(`*D${String(index)}`);
  for (const [from, to] of [line, ...leads]) block.addLine(at(from), at(to), { layerName });
  const tick = letter * 0.38;
  for (const [u, v] of line)
    block.addLine(point3d(u - tick, v - tick), point3d(u + tick, v + tick), { layerName });
  block.addMText(middle, letter, String(Math.round(length)), {
    layerName,
    attachmentPoint: MTextAttachmentPoint.MiddleCenter,
    rotation: upright ? 90 : 0,
  });
  dxf.addLinearDim(at(leads[0]?.[0] ?? a), at(leads[1]?.[0] ?? b), {
    layerName,
    blockName: block.name,
    definitionPoint: at(b),
    middlePoint: middle,
    angle: upright ? 90 : 0,
    ActualMeasurement: length,
    text: String(Math.round(length)),
    attachmentPoint: AttachmentPoint.MiddleCenter,
  });
}
