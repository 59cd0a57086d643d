/** What formulas see of rows of which only some literals are settled. */
import type { Value } from '../../formula';
import { valueAt } from '../../model';
import { always, never, not, type Lit } from '../../solver';
import { abstractOf, abstractOfAll, type AbstractValue } from '../bounds/abstract-values';
import type { Row } from './rows';

/** What settled literals tell: the literal's value now, and a number's bounds. */
export interface Settled {
  value(lit: Lit): number;
  bounds(number: number): { low: number; high: number; lowLit: Lit; highLit: Lit };
}

/** A part of what is settled of a row: literals that hold, with the bounds that they mean. */
export interface Evidence {
  lit: Lit;
  low?: number;
  high?: number;
}

/** What is settled of rows, as formulas read it. */
export interface PartialValues {
  /** What it was made from. */
  evidence: readonly Evidence[];
  abstract: AbstractValue;
  /** The one value left; undefined while there are several. */
  value: Value | undefined;
}

/** The literals of a row that hold and tell something of its value. */
export function evidenceOf(row: Row, settled: Settled): Evidence[] {
  const found: Evidence[] = [];
  const tell = (lit: Lit): void => {
    if (lit === always || lit === never) return;
    const value = settled.value(lit);
    if (value !== 0) found.push({ lit: value > 0 ? lit : not(lit) });
  };
  switch (row.kind) {
    case 'choice': {
      const one = [...row.taken, row.none].find((lit) => lit !== never && settled.value(lit) > 0);
      if (one !== undefined && one !== always) return [{ lit: one }];
      tell(row.shown);
      for (const lit of row.taken) tell(lit);
      tell(row.none);
      return found;
    }
    case 'many':
      for (const lit of row.taken) tell(lit);
      return found;
    case 'yesno':
      tell(row.shown);
      tell(row.yes);
      if (row.shown !== always) tell(row.no);
      return found;
    case 'number': {
      tell(row.shown);
      const { low, high, lowLit, highLit } = settled.bounds(row.number);
      if (lowLit !== always) found.push({ lit: lowLit, low });
      if (highLit !== always) found.push({ lit: highLit, high });
      return found;
    }
  }
}

type NumberRow = Extract<Row, { kind: 'number' }>;
const numbers = new WeakMap<NumberRow, Map<number, Value>>();

/** The number of a code; made once, since the same few are asked for again and again. */
function numberAt(row: NumberRow, code: number): Value {
  const known = numbers.get(row) ?? new Map<number, Value>();
  numbers.set(row, known);
  const before = known.get(code);
  if (before !== undefined) return before;
  const found = valueAt(row.entry.grid, code);
  if (known.size < 50_000) known.set(code, found);
  return found;
}

/** What a row can be, by some evidence alone. */
export const partialValuesOf = (row: Row, evidence: readonly Evidence[]): PartialValues => ({
  evidence,
  ...seenOf(row, evidence),
});

function seenOf(row: Row, evidence: readonly Evidence[]): Omit<PartialValues, 'evidence'> {
  const holds = (lit: Lit): boolean => lit === always || evidence.some((each) => each.lit === lit);
  const fails = (lit: Lit): boolean => lit === never || evidence.some((each) => each.lit === not(lit));
  if (row.kind === 'many') {
    const may = new Set(
      fails(row.shown) ? [] : row.ids.filter((_, index) => !fails(row.taken[index] as Lit)),
    );
    const must = new Set(row.ids.filter((_, index) => holds(row.taken[index] as Lit)));
    return {
      abstract: { ...abstractOfAll([]), list: { must, may } },
      value: may.size === must.size ? [...must] : undefined,
    };
  }
  const values: Value[] = [];
  const hidden = !holds(row.shown);
  if (row.kind === 'number') {
    const low = evidence.find((each) => each.low !== undefined)?.low ?? 0;
    const high = evidence.find((each) => each.high !== undefined)?.high ?? row.entry.grid.count - 1;
    // Without a value at one end, the next code is the first that has one.
    const first = row.entry.grid.optional && low === 0 && high > 0 ? [numberAt(row, 1)] : [];
    if (!fails(row.shown))
      values.push(numberAt(row, low), ...first, ...(high > low ? [numberAt(row, high)] : []));
  } else {
    const options: [Lit, Value][] =
      row.kind === 'yesno'
        ? [
            [row.yes, true],
            [row.no, false],
          ]
        : [...row.taken.map((lit, index): [Lit, Value] => [lit, row.ids[index] as string]), [row.none, null]];
    const one = options.find(([lit]) => lit !== always && holds(lit));
    if (one) return { abstract: abstractOf(one[1]), value: one[1] };
    if (!fails(row.shown)) for (const [lit, value] of options) if (!fails(lit)) values.push(value);
  }
  if (hidden) values.push(null);
  return { abstract: abstractOfAll(values), value: values.length === 1 ? values[0] : undefined };
}
