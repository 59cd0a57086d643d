/** What a model allows, by going through all of its builds: what engines are compared with. */
import {
  type DecisionValue,
  type PlainValue,
  open,
  plainAt,
  Reading,
  type CompiledModel,
  type Entry,
} from '../../model';

/** A value for each row. */
export type Build = Record<string, PlainValue>;
type RowEntry = Exclude<Entry, { kind: 'context' | 'calculation' | 'length' }>;

/**
 * Which parts of a model count: "rule:ID" (show rules too) and "shape:ROW" for what a feature itself asks.
 */
export type Enforced = (part: string) => boolean;

const today = '2026-06-01';

/**
 * Rows of a model and which of them are multiple choices, found once: brute force asks many thousand times.
 */
const facts = new WeakMap<CompiledModel, { rows: readonly RowEntry[]; many: ReadonlySet<string> }>();
function factsOf(model: CompiledModel): { rows: readonly RowEntry[]; many: ReadonlySet<string> } {
  const known = facts.get(model);
  if (known) return known;
  const rows = model.entries.filter(
    (entry): entry is RowEntry =>
      entry.kind !== 'context' && entry.kind !== 'calculation' && entry.kind !== 'length',
  );
  const made = {
    rows,
    many: new Set(rows.flatMap((entry) => (entry.kind === 'feature' && entry.many ? [entry.id] : []))),
  };
  facts.set(model, made);
  return made;
}

/** Where a row exists; of a text that stands with its length. */
function existenceOf(
  model: CompiledModel,
  entry: RowEntry,
): Pick<RowEntry, 'shownWhen' | 'placeWhen' | 'shownBy'> {
  return entry.kind === 'text' ? (model.entries[entry.length] as Extract<Entry, { kind: 'length' }>) : entry;
}

/** The values that rules see of a build. */
export function valuesOf(model: CompiledModel, build: Build): Record<string, PlainValue> {
  const { many } = factsOf(model);
  const values: Record<string, PlainValue> = { today };
  for (const id in build)
    values[id] = build[id] === 'hidden' ? (many.has(id) ? [] : null) : (build[id] as PlainValue);
  return values;
}

/**
 * Every complete valid build, straight from the meaning of the document; optionally with only some of its
 * parts in force.
 */
export function allBuilds(model: CompiledModel, enforced: Enforced = () => true): Build[] {
  const { rows } = factsOf(model);
  const builds: Build[] = [];
  const extend = (index: number, build: Build): void => {
    const entry = rows[index];
    if (!entry) {
      if (valid(model, build, enforced)) builds.push({ ...build });
      return;
    }
    // A row of a place that is known not to exist needs no trying.
    const { placeWhen } = existenceOf(model, entry);
    const place = placeWhen ? new Reading(model, valuesOf(model, build)).run(placeWhen) : true;
    if (place !== open && place !== true) extend(index + 1, { ...build, [entry.id]: 'hidden' });
    else
      for (const value of candidates(model, entry, enforced(`shape:${entry.id}`)))
        extend(index + 1, { ...build, [entry.id]: value });
  };
  extend(0, {});
  return builds;
}

/** "hidden" stands beside null so that nothing chosen and not existing are told apart. */
function candidates(model: CompiledModel, entry: RowEntry, counted: boolean): PlainValue[] {
  return [...(existenceOf(model, entry).shownWhen ? ['hidden'] : []), ...shownValues(model, entry, counted)];
}

function shownValues(model: CompiledModel, entry: RowEntry, counted: boolean): PlainValue[] {
  switch (entry.kind) {
    case 'feature': {
      const { least, most, options } = entry.feature;
      if (!entry.many) return [...(least === 0 ? [null] : []), ...options.map((option) => option.id)];
      const subsets = options.reduce<string[][]>(
        (all, option) => [...all, ...all.map((each) => [...each, option.id])],
        [[]],
      );
      return subsets.filter((each) => !counted || (each.length >= least && each.length <= most));
    }
    case 'yesno':
      return [true, false];
    case 'text': {
      const { grid } = model.entries[entry.length] as Extract<Entry, { kind: 'length' }>;
      return Array.from({ length: grid.count }, (_, code) => plainAt(grid, code));
    }
    default:
      return Array.from({ length: entry.grid.count }, (_, code) => plainAt(entry.grid, code));
  }
}

function valid(model: CompiledModel, build: Build, enforced: Enforced): boolean {
  const reading = new Reading(model, valuesOf(model, build));
  for (const entry of factsOf(model).rows) {
    const { shownWhen, placeWhen, shownBy } = existenceOf(model, entry);
    if (!shownWhen) continue;
    const hidden = build[entry.id] === 'hidden';
    const place = !placeWhen || reading.run(placeWhen) === true;
    if (!place && !hidden) return false;
    const shows = (shownBy ?? []).map(({ rule, when }) => ({
      counts: enforced(`rule:${rule.id}`),
      holds: reading.run(when) === true,
    }));
    if (!hidden && shows.some(({ counts, holds }) => counts && !holds)) return false;
    if (hidden && place && shows.every(({ counts, holds }) => counts && holds)) return false;
  }
  return model.rules.every(
    (compiled) =>
      compiled.severity !== 'error' ||
      compiled.rule.kind === 'say' ||
      !enforced(`rule:${compiled.rule.id}`) ||
      !breaks(reading, compiled),
  );
}

/** Whether a rule is broken, straight from what its kind means. */
export function breaks(
  reading: Reading,
  { rule, when, must, all, rows }: CompiledModel['rules'][number],
): boolean {
  if (when && reading.run(when) !== true) return false;
  if (rule.kind === 'say') return true;
  if (all) return all.every((each) => reading.run(each) === true);
  if (rows && rule.kind === 'table')
    return (
      rows.some((row) => row.every((cell) => reading.run(cell) === true)) !== (rule.listed === 'allowed')
    );
  return must.some((each) => reading.run(each) !== true);
}

/** All values a decision can take, as [on, value]. A text stands for any of its length. */
export function targetsOf(model: CompiledModel): { on: string; value: DecisionValue }[] {
  return factsOf(model).rows.flatMap((entry) => {
    if (entry.kind !== 'feature')
      return shownValues(model, entry, true).map((value) => ({
        on: entry.id,
        value: value as DecisionValue,
      }));
    return entry.feature.options.flatMap((option): { on: string; value: DecisionValue }[] =>
      entry.many
        ? [true, false].map((value) => ({ on: `${entry.id}.${option.id}`, value }))
        : [{ on: entry.id, value: option.id }],
    );
  });
}
