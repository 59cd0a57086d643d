/** From a drawing's formulas to what stands where, for one build. */
import { Exact } from '../exact';
import type { Formula, Value } from '../formula';
import {
  buildsInside,
  open,
  Reading,
  rowsRead,
  type Axis,
  type CompiledModel,
  type Dimension,
  type Looks,
  type Open,
  type Shape,
  type Texts,
  type Values,
} from '../model';

/** Millimetres. What is drawn is looked at, so binary floats will do. */
export type Point = readonly [x: number, y: number, z: number];

interface Placed {
  /**
   * With the number of its repetition, and the way to its build in front where it is part of a build inside.
   */
  id: string;
  layer: string;
  looks: Looks;
  /** The row that it shows. */
  of?: string;
  views?: readonly string[];
}

/** A body where it stands; millimetres. */
export type Solid = Placed &
  (
    | { kind: 'box'; at: Point; size: Point }
    | { kind: 'cylinder'; along: Axis; at: Point; radius: number; radiusTo: number; length: number }
    | {
        kind: 'prism';
        along: Axis;
        outline: readonly (readonly [number, number])[];
        from: number;
        length: number;
      }
  );

/** A text where it stands. */
export type Label = Placed & { kind: 'label'; at: Point; height: number; text: Texts };

/** A dimension between two points. */
export interface Measure {
  id: string;
  view: string;
  along: Axis;
  from: Point;
  to: Point;
  offset: number;
  of?: string;
}

/** What stands where, as a build has it. */
export interface Scene {
  solids: Solid[];
  labels: Label[];
  measures: Measure[];
  /** Rows that something in the drawing still waits for. */
  waits: string[];
}

type Numbers = readonly number[];

/** Everything that can be drawn of a build by now. A model without a drawing gives an empty scene. */
export function sceneOf(model: CompiledModel, values: Values): Scene {
  return new Draughtsman(model, values).scene();
}

/** A text that is the same for the same drawing: what its formulas read. */
export function sceneKey(model: CompiledModel, values: Values): string {
  return JSON.stringify([...rowsOfDrawing(model)].map((row) => values[row] ?? null));
}

const rowsDrawn = new WeakMap<CompiledModel, readonly string[]>();

function rowsOfDrawing(model: CompiledModel): readonly string[] {
  const known = rowsDrawn.get(model);
  if (known) return known;
  const formulas = [...model.formulas].flatMap(([path, formula]) =>
    path.startsWith('drawing.') ? [formula] : [],
  );
  const labels =
    model.document.drawing?.shapes.flatMap((shape) => (shape.kind === 'label' ? namesIn(shape.text) : [])) ??
    [];
  const drawnInside = new Set(
    model.document.drawing?.shapes.flatMap((shape) => (shape.kind === 'build' ? [shape.pick] : [])),
  );
  const picks = model.picks.filter((pick) => drawnInside.has(pick.on));
  const places = picks.flatMap((pick) => pick.builds.map((build) => `${build.place}/`));
  const inside = model.entries.flatMap(({ id }) =>
    places.some((place) => id.startsWith(place)) ? [id] : [],
  );
  const rows = [
    ...new Set([
      ...rowsRead(model, formulas),
      ...labels,
      ...inside,
      ...picks.flatMap((pick) => [pick.row, ...(pick.quantity === undefined ? [] : [pick.quantity])]),
    ]),
  ];
  rowsDrawn.set(model, rows);
  return rows;
}

const namesIn = (text: Texts): string[] =>
  Object.values(text).flatMap((each) =>
    [...each.matchAll(/\{([A-Za-z][A-Za-z0-9/]*)\}/g)].map((match) => match[1] as string),
  );

class Draughtsman {
  private readonly reading: Reading;
  private readonly waits = new Set<string>();
  private readonly looks: ReadonlyMap<string, Looks>;

  constructor(
    private readonly model: CompiledModel,
    private readonly values: Values,
  ) {
    this.reading = new Reading(model, values);
    this.looks = new Map(model.document.drawing?.layers.map((layer) => [layer.id, layer.looks]));
  }

  scene(): Scene {
    const { drawing } = this.model.document;
    const found: Scene = { solids: [], labels: [], measures: [], waits: [] };
    for (const shape of drawing?.shapes ?? []) {
      if (shape.kind === 'build') this.inside(shape, found);
      else {
        for (const each of this.shape(shape)) {
          if (each.kind === 'label') found.labels.push(each);
          else found.solids.push(each);
        }
      }
    }
    for (const dimension of drawing?.dimensions ?? []) found.measures.push(...this.measure(dimension));
    found.waits = [...this.waits];
    return found;
  }

  /** The value at a path; what it waits for is noted. */
  private value(path: string): Value | Open | undefined {
    const formula = this.model.formulas.get(path);
    const value = formula && this.reading.run(formula);
    if (value === open) this.note(formula as Formula);
    return value;
  }

  private note(formula: Formula): void {
    for (const row of rowsRead(this.model, [formula]))
      if (this.values[row] === undefined) this.waits.add(row);
  }

  private number(path: string): number | null {
    const value = this.value(path);
    return value instanceof Exact ? value.toNumber() : null;
  }

  /** A number for each repetition; one number stands for all. Null where it cannot be said. */
  private numbers(path: string): Numbers | null {
    const value = this.value(path);
    const list = Array.isArray(value) ? value : [value];
    return list.every((each) => each instanceof Exact) ? list.map((each) => each.toNumber()) : null;
  }

  private points(path: string): ((index: number) => Point) | null {
    const [x, y, z] = [0, 1, 2].map((axis) => this.numbers(`${path}.${String(axis)}`));
    if (!x || !y || !z) return null;
    return (index) => [pick(x, index), pick(y, index), pick(z, index)];
  }

  /** The repetitions that stand; none where their number or conditions are open. */
  private standing(shape: Shape, path: string): number[] {
    const count = shape.repeat === undefined ? 1 : this.number(`${path}.repeat`);
    if (count === null || count < 1) return [];
    const when = this.value(`${path}.when`);
    if (when === open) return [];
    const holds = Array.isArray(when) ? when : when === undefined ? undefined : [when];
    return Array.from({ length: Math.floor(count) }, (_, index) => index).filter(
      (index) => holds === undefined || holds[index] === true,
    );
  }

  private *shape(shape: Exclude<Shape, { kind: 'build' }>): Generator<Solid | Label> {
    const path = `drawing.${shape.id}`;
    const standing = this.standing(shape, path);
    if (standing.length === 0) return;
    const make = this.maker(shape, path);
    if (!make) return;
    const { layer, of, views } = shape;
    for (const index of standing) {
      yield {
        id: shape.repeat === undefined ? shape.id : `${shape.id}.${String(index + 1)}`,
        layer,
        looks: this.looks.get(layer) ?? 'steel',
        ...(of === undefined ? {} : { of }),
        ...(views ? { views } : {}),
        ...make(index),
      } as Solid | Label;
    }
  }

  /** What is particular to a kind of shape, for one repetition; null where a coordinate is open. */
  private maker(shape: Exclude<Shape, { kind: 'build' }>, path: string): ((index: number) => object) | null {
    switch (shape.kind) {
      case 'box': {
        const [at, size] = [this.points(`${path}.at`), this.points(`${path}.size`)];
        return at && size && ((index) => ({ kind: 'box', at: at(index), size: size(index) }));
      }
      case 'cylinder': {
        const [at, radius, length] = [
          this.points(`${path}.at`),
          this.numbers(`${path}.radius`),
          this.numbers(`${path}.length`),
        ];
        const radiusTo = shape.radiusTo === undefined ? radius : this.numbers(`${path}.radiusTo`);
        return (
          at &&
          radius &&
          radiusTo &&
          length &&
          ((index) => ({
            kind: 'cylinder',
            along: shape.along,
            at: at(index),
            radius: pick(radius, index),
            radiusTo: pick(radiusTo, index),
            length: pick(length, index),
          }))
        );
      }
      case 'prism': {
        const corners = shape.outline.map(
          (_, corner) =>
            [
              this.numbers(`${path}.outline.${String(corner)}.0`),
              this.numbers(`${path}.outline.${String(corner)}.1`),
            ] as const,
        );
        const [from, length] = [this.numbers(`${path}.from`), this.numbers(`${path}.length`)];
        if (!from || !length || corners.some(([a, b]) => !a || !b)) return null;
        return (index) => ({
          kind: 'prism',
          along: shape.along,
          outline: corners.map(([a, b]) => [pick(a as Numbers, index), pick(b as Numbers, index)]),
          from: pick(from, index),
          length: pick(length, index),
        });
      }
      case 'label': {
        const [at, height] = [this.points(`${path}.at`), this.numbers(`${path}.height`)];
        const text = this.filled(shape.text);
        return (
          at &&
          height &&
          text &&
          ((index) => ({ kind: 'label', at: at(index), height: pick(height, index), text }))
        );
      }
    }
  }

  /** Words with values filled in; null where there is nothing to say. */
  private filled(texts: Texts): Texts | null {
    let empty = false as boolean;
    const filled = Object.entries(texts).map(([language, text]) => [
      language,
      text.replace(/\{([A-Za-z][A-Za-z0-9/]*)\}/g, (_, name: string) => {
        const value = this.reading.named(name);
        if (value === open || value === null) empty = true;
        return typeof value === 'string' ? value : value instanceof Exact ? value.toString() : '';
      }),
    ]);
    return empty ? null : (Object.fromEntries(filled) as Texts);
  }

  private inside(shape: Extract<Shape, { kind: 'build' }>, found: Scene): void {
    const path = `drawing.${shape.id}`;
    const places = this.points(`${path}.at`);
    const standing = new Set(shape.repeat === undefined ? undefined : this.standing(shape, path));
    for (const {
      pick: { on },
      build,
      values,
    } of buildsInside(this.reading)) {
      const index = build.index - 1;
      if (on !== shape.pick || !places || (shape.repeat !== undefined && !standing.has(index))) continue;
      const scene = sceneOf(build.model, values);
      const by = places(index);
      const placed = <T extends Placed>(each: T): T => ({
        ...each,
        id: `${build.place}/${each.id}`,
        ...(each.of === undefined ? {} : { of: build.names.get(each.of) ?? `${build.place}/${each.of}` }),
      });
      found.solids.push(...scene.solids.map((solid) => moved(placed(solid), by)));
      found.labels.push(...scene.labels.map((label) => ({ ...placed(label), at: plus(label.at, by) })));
      found.measures.push(
        ...scene.measures.map((measure) => ({
          ...measure,
          id: `${build.place}/${measure.id}`,
          from: plus(measure.from, by),
          to: plus(measure.to, by),
          ...(measure.of === undefined
            ? {}
            : { of: build.names.get(measure.of) ?? `${build.place}/${measure.of}` }),
        })),
      );
      for (const row of scene.waits) this.waits.add(build.names.get(row) ?? `${build.place}/${row}`);
    }
  }

  private measure({ id, view, along, of }: Dimension): Measure[] {
    const path = `drawing.${id}`;
    const when = this.value(`${path}.when`);
    if (when !== undefined && when !== true) return [];
    const [from, to, offset] = [
      this.points(`${path}.from`),
      this.points(`${path}.to`),
      this.number(`${path}.offset`),
    ];
    return from && to && offset !== null
      ? [{ id, view, along, from: from(0), to: to(0), offset, ...(of === undefined ? {} : { of }) }]
      : [];
  }
}

const pick = (numbers: Numbers, index: number): number => numbers[index] ?? (numbers[0] as number);
const plus = (a: Point, b: Point): Point => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

function moved(solid: Solid, by: Point): Solid {
  if (solid.kind !== 'prism') return { ...solid, at: plus(solid.at, by) };
  const [u, v] = planeOf[solid.along];
  const along = indexOf[solid.along];
  return {
    ...solid,
    outline: solid.outline.map(([a, b]) => [a + (by[u] as number), b + (by[v] as number)] as const),
    from: solid.from + (by[along] as number),
  };
}

/** The two axes across an axis, as indices of a point. */
export const planeOf: Readonly<Record<Axis, readonly [number, number]>> = { x: [1, 2], y: [0, 2], z: [0, 1] };
/** The place of an axis among coordinates. */
export const indexOf: Readonly<Record<Axis, number>> = { x: 0, y: 1, z: 2 };
