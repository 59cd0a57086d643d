/** A scene seen from one side: outlines from the farthest to the nearest, and dimension lines. */
import type { Axis, Looks, Texts, Viewpoint } from '../model';
import { indexOf, planeOf, type Label, type Point, type Scene, type Solid } from './scene';

/** Millimetres in the plane of the view: to the right, and up. */
export type Spot = readonly [u: number, v: number];

/** Something to be drawn flat. */
export type Figure = {
  id: string;
  layer: string;
  looks: Looks;
  of?: string;
  /** Lighter above nothing, darker below; of faces that stand in light. */
  shade?: number;
} & ({ kind: 'polygon'; points: readonly Spot[] } | { kind: 'circle'; centre: Spot; radius: number });

/** A text to be drawn flat. */
export interface Words {
  id: string;
  layer: string;
  at: Spot;
  height: number;
  text: Texts;
}

/** A dimension: its line, the two lines that lead to it, and how long what it measures is. */
export interface DimensionLine {
  id: string;
  of?: string;
  line: readonly [Spot, Spot];
  leads: readonly (readonly [Spot, Spot])[];
  /** Millimetres. */
  length: number;
  /** The line stands upright. */
  upright: boolean;
}

/** The room that a view takes. */
export interface Frame {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/** A scene as it is seen from one side. */
export interface View {
  figures: Figure[];
  words: Words[];
  dimensions: DimensionLine[];
  /** Holds all of it. */
  frame: Frame;
}

/** How a viewpoint maps space: which axes run to the right and up, and from which the viewer looks. */
interface Sight {
  right: { axis: Axis; sign: 1 | -1 };
  up: Axis;
  /** The axis along which one looks; `from` 1 looks from its greater end. */
  depth: { axis: Axis; from: 1 | -1 };
}

const sights: Readonly<Record<Viewpoint, Sight>> = {
  front: { right: { axis: 'x', sign: 1 }, up: 'z', depth: { axis: 'y', from: -1 } },
  back: { right: { axis: 'x', sign: -1 }, up: 'z', depth: { axis: 'y', from: 1 } },
  above: { right: { axis: 'x', sign: 1 }, up: 'y', depth: { axis: 'z', from: 1 } },
  end: { right: { axis: 'y', sign: 1 }, up: 'z', depth: { axis: 'x', from: 1 } },
};

/** The scene as the view of this id shows it. */
export function viewOf(scene: Scene, id: string, from: Viewpoint): View {
  const sight = sights[from];
  const here = ({ views }: { views?: readonly string[] }) => !views || views.includes(id);
  const figures = scene.solids
    .filter(here)
    .map((solid) => ({ near: nearness(solid, sight), figure: figureOf(solid, sight) }))
    // Sorting is stable: what is equally near stands in the order of the document.
    .sort((a, b) => a.near - b.near)
    .map(({ figure }) => figure);
  const words = scene.labels.filter(here).map((label: Label): Words => ({
    id: label.id,
    layer: label.layer,
    at: spot(label.at, sight),
    height: label.height,
    text: label.text,
  }));
  const dimensions = scene.measures
    .filter((measure) => measure.view === id)
    .map((measure): DimensionLine => {
      const [a, b] = [spot(measure.from, sight), spot(measure.to, sight)];
      const upright = measure.along === sight.up;
      const across = upright ? 0 : 1;
      const ends = [a[across], b[across]];
      const at = measure.offset < 0 ? Math.min(...ends) + measure.offset : Math.max(...ends) + measure.offset;
      const on = (point: Spot): Spot => (upright ? [at, point[1]] : [point[0], at]);
      const along = indexOf[measure.along];
      return {
        id: measure.id,
        ...(measure.of === undefined ? {} : { of: measure.of }),
        line: [on(a), on(b)],
        leads: [
          [a, on(a)],
          [b, on(b)],
        ],
        length: Math.abs((measure.to[along] as number) - (measure.from[along] as number)),
        upright,
      };
    });
  return { figures, words, dimensions, frame: frameOf(figures, words, dimensions) };
}

const spot = (point: Point, { right, up }: Sight): Spot => [
  right.sign * (point[indexOf[right.axis]] as number) + 0,
  point[indexOf[up]] as number,
];

/** Least and greatest coordinate of a solid along an axis. */
export function extentOf(solid: Solid, axis: Axis): readonly [number, number] {
  const index = indexOf[axis];
  if (solid.kind === 'box') {
    const at = solid.at[index] as number;
    const to = at + (solid.size[index] as number);
    return [Math.min(at, to), Math.max(at, to)];
  }
  if (solid.along === axis) {
    const from = solid.kind === 'prism' ? solid.from : (solid.at[index] as number);
    return [Math.min(from, from + solid.length), Math.max(from, from + solid.length)];
  }
  if (solid.kind === 'cylinder') {
    const [at, radius] = [solid.at[index] as number, Math.max(solid.radius, solid.radiusTo)];
    return [at - radius, at + radius];
  }
  const side = planeOf[solid.along].indexOf(index);
  const all = solid.outline.map((corner) => corner[side] as number);
  return [Math.min(...all), Math.max(...all)];
}

function nearness(solid: Solid, { depth }: Sight): number {
  const [least, most] = extentOf(solid, depth.axis);
  return depth.from === 1 ? most : -least;
}

function figureOf(solid: Solid, sight: Sight): Figure {
  const { id, layer, looks, of } = solid;
  const base = { id, layer, looks, ...(of === undefined ? {} : { of }) };
  const sign = sight.right.sign;
  if (solid.kind !== 'box' && solid.along === sight.depth.axis) {
    if (solid.kind === 'cylinder')
      return {
        ...base,
        kind: 'circle',
        centre: spot(solid.at, sight),
        radius: Math.max(solid.radius, solid.radiusTo),
      };
    const [first] = planeOf[solid.along];
    const turned = first !== indexOf[sight.right.axis];
    return {
      ...base,
      kind: 'polygon',
      points: solid.outline.map(([a, b]): Spot => (turned ? [sign * b, a] : [sign * a, b])),
    };
  }
  if (solid.kind === 'cylinder' && solid.radius !== solid.radiusTo)
    return { ...base, kind: 'polygon', points: narrowing(solid, sight) };
  const [left, right] = extentOf(solid, sight.right.axis);
  const [bottom, top] = extentOf(solid, sight.up);
  return {
    ...base,
    kind: 'polygon',
    points: [
      [sign * left, bottom],
      [sign * right, bottom],
      [sign * right, top],
      [sign * left, top],
    ],
  };
}

/** The four corners of a cone seen from the side. */
function narrowing(
  { along, at, radius, radiusTo, length }: Extract<Solid, { kind: 'cylinder' }>,
  sight: Sight,
): Spot[] {
  const [u, v] = spot(at, sight);
  if (along === sight.up)
    return [
      [u - radius, v],
      [u + radius, v],
      [u + radiusTo, v + length],
      [u - radiusTo, v + length],
    ];
  const far = u + sight.right.sign * length;
  return [
    [u, v - radius],
    [u, v + radius],
    [far, v + radiusTo],
    [far, v - radiusTo],
  ];
}

function frameOf(
  figures: readonly Figure[],
  words: readonly Words[],
  dimensions: readonly DimensionLine[],
): Frame {
  const spots: Spot[] = [
    ...figures.flatMap((figure): readonly Spot[] =>
      figure.kind === 'polygon'
        ? figure.points
        : [
            [figure.centre[0] - figure.radius, figure.centre[1] - figure.radius],
            [figure.centre[0] + figure.radius, figure.centre[1] + figure.radius],
          ],
    ),
    ...words.map(({ at }) => at),
    ...dimensions.flatMap(({ line }) => line),
  ];
  if (spots.length === 0) return { left: 0, right: 1, bottom: 0, top: 1 };
  const [us, vs] = [spots.map(([u]) => u), spots.map(([, v]) => v)];
  return { left: Math.min(...us), right: Math.max(...us), bottom: Math.min(...vs), top: Math.max(...vs) };
}
