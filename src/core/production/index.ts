/** Production: what a build is made of, how it is made, and when it can be there. */
import { exact, Exact, zero } from '../exact';
import {
  buildsInside,
  countedApart,
  featureAt,
  open,
  Reading,
  type CompiledModel,
  type Counting,
  type Open,
  type Texts,
  type Values,
} from '../model';

export {
  afterWorkingDays,
  calendarFor,
  plainWeek,
  promisedDay,
  shippingDays,
  type WorkingCalendar,
} from './calendar';
export { leadFormula } from './lead-formula';

/** Material that a build needs. */
export interface MaterialNeed {
  /** With the way to its build in front, where it is part of a build inside. */
  row: string;
  place?: string;
  item: string;
  /** With scrap. */
  quantity: string;
  /** Metres, for what is cut to length, and how many pieces of it, without scrap. */
  cut?: string;
  pieces?: string;
  /** Of what is not counted with each piece of the line. */
  counts?: Counting;
}

/** An operation with its times in hours. */
export interface OperationStep {
  row: string;
  place?: string;
  name: Texts;
  centre: string;
  setUp: string;
  run: string;
  /** Set-up and run time for one build. */
  hours: string;
  /** Instruction with values filled in. */
  text: Texts;
}

/** How a build is made; what depends on something open is named as open. */
export interface Making {
  materials: MaterialNeed[];
  operations: OperationStep[];
  /** Rows that wait for something open. */
  open: string[];
}

/**
 * Materials and operations of one build, in the order of the document, then of the builds inside, each its
 * own sub-assembly; quantities for one unit.
 */
export function making(model: CompiledModel, values: Values): Making {
  const reading = new Reading(model, values);
  const waiting: string[] = [];
  const needed = <T>(id: string, path: string, make: () => T | Open | null): T[] => {
    const holds = reading.holdsAt(`${path}.when`);
    const made = holds === true ? make() : null;
    if (holds === open || made === open) {
      waiting.push(id);
      return [];
    }
    return made === null ? [] : [made];
  };
  const materials = model.document.materials.flatMap((row) =>
    needed(row.id, `materials.${row.id}`, (): MaterialNeed | Open | null => {
      const quantity = reading.numberAt(`materials.${row.id}.quantity`);
      const cut = reading.numberAt(`materials.${row.id}.cut`);
      if (quantity === open || cut === open) return open;
      if (!quantity || quantity.isZero()) return null;
      const counts = countedApart(row.counts);
      const withScrap = quantity.times(exact(1).plus(row.scrap ?? '0'));
      return {
        row: row.id,
        item: row.item,
        quantity: withScrap.toString(),
        ...(cut && !cut.isZero() ? { cut: cut.toString(), pieces: quantity.div(cut).ceil().toString() } : {}),
        ...(counts === undefined ? {} : { counts }),
      };
    }),
  );
  const operations = model.document.operations.flatMap((row) =>
    needed(row.id, `operations.${row.id}`, (): OperationStep | Open => {
      const setUp = reading.numberAt(`operations.${row.id}.setUp`);
      const run = reading.numberAt(`operations.${row.id}.run`);
      const text = filled(reading, row.text);
      if (setUp === open || run === open || text === open) return open;
      const [begin, each] = [setUp ?? zero, run ?? zero];
      return {
        row: row.id,
        name: row.name,
        centre: row.centre,
        setUp: begin.toString(),
        run: each.toString(),
        hours: begin.plus(each).toString(),
        text,
      };
    }),
  );
  for (const { build, values: own } of buildsInside(reading, (place) => waiting.push(place))) {
    const made = making(build.model, own);
    const placed = <T extends { row: string; place?: string }>(each: T): T => ({
      ...each,
      row: `${build.place}/${each.row}`,
      place: each.place === undefined ? build.place : `${build.place}/${each.place}`,
    });
    materials.push(...made.materials.map(placed));
    operations.push(...made.operations.map(placed));
    waiting.push(...made.open.map((id) => `${build.place}/${id}`));
  }
  return { materials, operations, open: waiting };
}

/**
 * Working days until a build can be there: its slowest item or build inside, plus what the model adds. Open
 * while that is open.
 */
export function leadDays(
  model: CompiledModel,
  values: Values,
  items: Readonly<Record<string, { leadDays: number }>>,
): number | null {
  const reading = new Reading(model, values);
  const extra = reading.numberAt('extraDays');
  if (extra === open) return null;
  const made = making(model, values);
  if (made.open.length > 0) return null;
  const inside = buildsInside(reading).map(
    ({ build, values: own }) => leadDays(build.model, own, items) ?? 0,
  );
  const longest = made.materials.reduce(
    (most, need) => Math.max(most, items[need.item]?.leadDays ?? 0),
    Math.max(0, ...inside),
  );
  return longest + (extra ? extra.toNumber() : 0);
}

/**
 * Fills {name} with the value of a feature's option, parameter or calculation, in each language. What stands
 * in square brackets is left out where a value in it is nothing.
 */
function filled(reading: Reading, texts: Texts): Texts | Open {
  const result: Record<string, string> = {};
  for (const [language, text] of Object.entries(texts)) {
    let unsettled = false as boolean;
    const fill = (part: string): { said: string; whole: boolean } => {
      let whole = true;
      const said = part.replace(/\{([A-Za-z][A-Za-z0-9/]*)\}/g, (_, name: string) => {
        const value = reading.named(name);
        if (value === open) unsettled = true;
        const there = value === open || value === null ? '' : written(reading, name, value, language);
        if (there === '') whole = false;
        return there || '–';
      });
      return { said, whole };
    };
    result[language] = fill(
      text.replace(/\[([^\][]*)\]/g, (_, part: string) => {
        const { said, whole } = fill(part);
        return whole ? said : '';
      }),
    ).said;
    if (unsettled) return open;
  }
  return result;
}

function written(
  reading: Reading,
  name: string,
  value: Exclude<ReturnType<Reading['named']>, Open | null>,
  language: string,
): string {
  const feature = featureAt(reading.model, name);
  const option = (id: unknown) =>
    feature?.options.find((each) => each.id === id)?.name[language] ?? String(id);
  if (value instanceof Exact) return value.toString().replace('.', language === 'de' ? ',' : '.');
  if (Array.isArray(value)) return value.map(option).join(', ');
  return option(value);
}
