/**
 * The drawing of a model as it stands in its document: things in space, in millimetres, whose coordinates are
 * formulas.
 */
import type { Feel, Texts } from './texts';

/** What a build looks like, by formulas. */
export interface Drawing {
  views: { id: string; name: Texts; from: Viewpoint }[];
  layers: DrawingLayer[];
  shapes: Shape[];
  dimensions: Dimension[];
}

/**
 * Where one looks from. x runs along the thing to the right of the front view, y away from its viewer, z
 * upwards.
 * front: x to the right, z up. back: x to the left, z up. above: x to the right, y up. end: y to the right, z
 * up.
 */
export type Viewpoint = 'front' | 'back' | 'above' | 'end';

/** Shapes that are shown and exported together. */
export interface DrawingLayer {
  /** Name of the layer in a DXF file, in capitals. */
  id: string;
  name: Texts;
  looks: Looks;
}

/** What a layer looks like it is made of. */
export type Looks = 'steel' | 'dark' | 'concrete' | 'ground' | 'vehicle' | 'glass' | 'accent' | 'paper';

/** An axis of space. */
export type Axis = 'x' | 'y' | 'z';
/** A point, each coordinate a formula in millimetres. */
export type Coordinates = [x: Feel, y: Feel, z: Feel];

interface ShapeBase {
  id: string;
  layer: string;
  when?: Feel;
  /** How often it stands; formulas then see which one it is as `i`, from 1. */
  repeat?: Feel;
  /** The row that it shows: one leads to the other. */
  of?: string;
  /** Seen in these views alone; the view in three dimensions is called space. */
  views?: string[];
}

/** A body, label or measure, and when it is there. */
export type Shape = ShapeBase &
  /** From the corner with the least coordinates. */
  (
    | { kind: 'box'; at: Coordinates; size: Coordinates }
    /** From the centre of one end along an axis; `radiusTo` at the other end where it narrows. */
    | { kind: 'cylinder'; along: Axis; at: Coordinates; radius: Feel; radiusTo?: Feel; length: Feel }
    /** An outline in the plane across the axis (x and y, x and z, or y and z), drawn out along it. */
    | { kind: 'prism'; along: Axis; outline: [Feel, Feel][]; from: Feel; length: Feel }
    /** Words at a place, such as an engraving; {name} is filled with the value of that name. */
    | { kind: 'label'; at: Coordinates; height: Feel; text: Texts }
    /** The drawing of what an option brings, each build moved to its place; `i` numbers them. */
    | { kind: 'build'; pick: string; at: Coordinates }
  );

/** A measure along an axis, drawn beside the thing. */
export interface Dimension {
  id: string;
  view: string;
  along: Axis;
  from: Coordinates;
  to: Coordinates;
  /** Where its line stands: so far beyond the points, to the right or up where positive. */
  offset: Feel;
  of?: string;
  when?: Feel;
}

/** A formula of a drawing: where it stands, and whether it is one for each repetition. */
export interface DrawnFormula {
  path: string;
  source: Feel;
  wanted: 'number' | 'yesno';
  repeated: boolean;
}

/** Every formula of a drawing. */
export function* drawnFormulas({ shapes, dimensions }: Drawing): Generator<DrawnFormula> {
  for (const shape of shapes) {
    const path = `drawing.${shape.id}`;
    const repeated = shape.repeat !== undefined || shape.kind === 'build';
    const number = (name: string, source: Feel | undefined): DrawnFormula[] =>
      source === undefined ? [] : [{ path: `${path}.${name}`, source, wanted: 'number', repeated }];
    if (shape.repeat !== undefined)
      yield { path: `${path}.repeat`, source: shape.repeat, wanted: 'number', repeated: false };
    if (shape.when !== undefined)
      yield { path: `${path}.when`, source: shape.when, wanted: 'yesno', repeated };
    if ('at' in shape)
      for (const [index, source] of shape.at.entries()) yield* number(`at.${String(index)}`, source);
    if (shape.kind === 'box')
      for (const [index, source] of shape.size.entries()) yield* number(`size.${String(index)}`, source);
    if (shape.kind === 'cylinder') {
      yield* number('radius', shape.radius);
      yield* number('radiusTo', shape.radiusTo);
      yield* number('length', shape.length);
    }
    if (shape.kind === 'prism') {
      for (const [corner, pair] of shape.outline.entries())
        for (const [index, source] of pair.entries())
          yield* number(`outline.${String(corner)}.${String(index)}`, source);
      yield* number('from', shape.from);
      yield* number('length', shape.length);
    }
    if (shape.kind === 'label') yield* number('height', shape.height);
  }
  for (const { id, when, from, to, offset } of dimensions) {
    const path = `drawing.${id}`;
    if (when !== undefined) yield { path: `${path}.when`, source: when, wanted: 'yesno', repeated: false };
    for (const [name, point] of [
      ['from', from],
      ['to', to],
    ] as const)
      for (const [index, source] of point.entries())
        yield { path: `${path}.${name}.${String(index)}`, source, wanted: 'number', repeated: false };
    yield { path: `${path}.offset`, source: offset, wanted: 'number', repeated: false };
  }
}

/** Builds of one option that a drawing has places for. */
const mostBuilds = 20;

/** How many repetitions a formula is worked out for. */
export const repeats = (shape: Shape): Feel =>
  shape.repeat ?? (shape.kind === 'build' ? String(mostBuilds) : '1');

/** What a repeated formula stands behind, so that it gives one value for each repetition. */
export const beforeRepeated = (times: Feel): string => `for i in 1..(${times}) return (`;
