/** Rows of a table rule looked at beside each other: which say the same, what none of them lets pass. */
import type { CompiledModel, DecisionValue } from '../../model';
import { always, type Lit } from '../../solver';
import { Encoding } from '../encoding/encoding';
import { variablesOf, type Variable } from '../encoding/variables';
import type { Context } from '../types';

type Possible = (lits: readonly Lit[]) => boolean;
const mostPairs = 20_000;
const mostMissing = 500;
/** So many combinations are looked at for those that no row has. */
const mostLooked = 4_000;

/** Pairs of rows, by their places, that say the same of some build. */
export function* overlapsIn(rows: readonly Lit[], possible: Possible): Generator<[number, number]> {
  let pairs = 0;
  for (let one = 0; one < rows.length; one++)
    for (let other = one + 1; other < rows.length && ++pairs <= mostPairs; other++)
      if (possible([rows[one] as Lit, rows[other] as Lit])) yield [one, other];
}

/** Values of a column that no row lets pass. */
export function* holesIn(
  columns: readonly string[],
  rows: readonly Lit[],
  variables: readonly Variable[],
  possible: Possible,
): Generator<{ on: string; value: DecisionValue }> {
  for (const on of columns)
    for (const { value, wish } of variables.find((each) => each.on === on)?.codes ?? [])
      if (value !== null && rows.every((row) => !possible([...wish.lits, row]))) yield { on, value };
}

/** A table rule while it is written. */
export interface TableLook {
  overlaps: readonly (readonly [number, number])[];
  /** Values that no row lets pass, by the place of their column. */
  holes: readonly { column: number; value: string }[];
  /** Combinations of what can be chosen that no row has, as rows of cells; the first of them where there are many. */
  missing: readonly (readonly string[])[];
  /** There are more of them. */
  more: boolean;
}

/**
 * Looks at a table rule in every context: rows overlap that do in one, what is missing is so in all. Null where there
 * is no such rule, or it is in force nowhere.
 */
export function lookAtTable(model: CompiledModel, date: string, id: string): TableLook | null {
  const looks = contextsOf(model, date).flatMap((context) => lookIn(model, context, id) ?? []);
  const [first, ...rest] = looks;
  if (!first) return null;
  const key = (value: unknown): string => JSON.stringify(value);
  const inAll = <T>(of: (look: TableLook) => readonly T[]): T[] => {
    const others = rest.map((look) => new Set(of(look).map(key)));
    return of(first).filter((each) => others.every((known) => known.has(key(each))));
  };
  const pairs = new Map(looks.flatMap(({ overlaps }) => overlaps.map((pair) => [key(pair), pair] as const)));
  return {
    overlaps: [...pairs.values()],
    holes: inAll(({ holes }) => holes),
    missing: inAll(({ missing }) => missing),
    more: looks.every(({ more }) => more),
  };
}

const mostContexts = 60;

/** The contexts of a model on a day, in the order of their values. */
export function contextsOf({ document }: CompiledModel, date: string): Context[] {
  const values = document.context.reduce<Record<string, string>[]>(
    (all, input) => all.flatMap((each) => input.values.map((value) => ({ ...each, [input.id]: value.id }))),
    [{}],
  );
  return values.slice(0, mostContexts).map((each) => ({ date, values: each }));
}

function lookIn(model: CompiledModel, context: Context, id: string): TableLook | null {
  const encoding = new Encoding(model, context, true);
  const compiled = model.rules.find((each) => each.rule.id === id);
  if (compiled?.rule.kind !== 'table' || !compiled.rows || !encoding.inForce(compiled.rule)) return null;
  const { of: columns, listed } = compiled.rule;
  const { conditions, solver } = encoding;
  const rows = compiled.rows.map((row) => conditions.all(row.map((cell) => conditions.of(cell).yes)));
  const variables = variablesOf(encoding);
  const frame = [...encoding.parts].flatMap(([lit, part]) =>
    part.kind === 'shape' || part.rule.kind === 'show' ? [lit] : [],
  );
  const possible: Possible = (lits) =>
    solver.ask({ assume: [...frame, ...lits].filter((lit) => lit !== always) }).is === 'yes';
  const found = missingIn(columns, rows, variables, possible);
  return {
    overlaps: [...overlapsIn(rows, possible)],
    holes:
      listed === 'forbidden'
        ? []
        : [...holesIn(columns, rows, variables, possible)].map(({ on, value }) => ({
            column: columns.indexOf(on),
            value: String(value),
          })),
    ...found,
  };
}

/** Combinations of the values of the columns, where each can be counted up, that no row has. */
function missingIn(
  columns: readonly string[],
  rows: readonly Lit[],
  variables: readonly Variable[],
  possible: Possible,
): Pick<TableLook, 'missing' | 'more'> {
  const values = columns.map((on) =>
    (variables.find((each) => each.on === on)?.codes ?? []).filter(({ value }) => value !== null),
  );
  const missing: string[][] = [];
  if (values.some((each) => each.length === 0)) return { missing, more: false };
  let looked = 0;
  let more = false;
  const go = (at: number, lits: readonly Lit[], cells: readonly string[]): void => {
    if (more) return;
    if (at === columns.length) {
      if (++looked > mostLooked || missing.length >= mostMissing) more = true;
      else if (rows.every((row) => !possible([...lits, row]))) missing.push([...cells]);
      return;
    }
    for (const { value, wish } of values[at] ?? []) {
      const next = [...lits, ...wish.lits];
      // What cannot be built anyway needs no row.
      if (possible(next)) go(at + 1, next, [...cells, cellOf(value)]);
    }
  };
  go(0, [], []);
  return { missing, more };
}

/** A value as the cell that lets it alone pass. */
const cellOf = (value: DecisionValue): string =>
  typeof value === 'boolean'
    ? String(value)
    : /^-?\d+(\.\d+)?$/.test(String(value))
      ? String(value)
      : JSON.stringify(value);
