/** Reading formulas over the values of a build that may still have open places. */
import { exact, Exact } from '../exact';
import { Day, type Formula, type Value } from '../formula';
import type { CompiledModel } from './entries';
import { lettersOf } from './letters';

/**
 * A value as it travels: option id, list of option ids, decimal written out, ISO day, text, yes/no; null
 * where there is none.
 */
export type PlainValue = string | boolean | null | readonly string[];

/** Values by id of feature, parameter or context input; an id that is absent is still open. */
export type Values = Readonly<Record<string, PlainValue>>;

/** Marks a result that depends on something nobody has settled yet. */
export const open = Symbol('open');
/** The mark of what is not settled. */
export type Open = typeof open;

const unsettled = new Error('a formula read something unsettled');

/** Evaluates formulas of a compiled model for one set of values. Calculations are worked out at most once. */
export class Reading {
  private readonly known = new Map<number, Value | Open>();

  constructor(
    readonly model: CompiledModel,
    readonly values: Values,
  ) {}

  /** The same but for the values of some rows; what does not depend on them is not worked out again. */
  changed(values: Values, ids: readonly string[]): Reading {
    const next = new Reading(this.model, values);
    const stale = new Set(ids.flatMap((id) => [...dependentsOf(this.model, id)]));
    for (const [slot, value] of this.known) if (!stale.has(slot)) next.known.set(slot, value);
    return next;
  }

  /** The exact value of a formula, or `open` where it read something unsettled. */
  run(formula: Formula): Value | Open {
    try {
      return formula.run((slot) => {
        const value = this.slot(slot);
        if (value === open) throw unsettled;
        return value;
      });
    } catch (thrown) {
      if (thrown === unsettled) return open;
      throw thrown;
    }
  }

  /**
   * The formula at a path of the document, such as "materials.modules.quantity"; undefined where the document
   * has none.
   */
  at(path: string): Value | Open | undefined {
    const formula = this.model.formulas.get(path);
    return formula && this.run(formula);
  }

  /** A number at a path: open while unsettled; null where the formula gives none. */
  numberAt(path: string): Exact | Open | null | undefined {
    const value = this.at(path);
    return value === undefined || value === open || value instanceof Exact ? value : null;
  }

  /** Whether a condition at a path holds; a missing condition holds. */
  holdsAt(path: string): boolean | Open {
    const value = this.at(path);
    return value === undefined ? true : value === open ? open : value === true;
  }

  /** The value of a row, calculation or context input; null where the model has none of this name. */
  named(id: string): Value | Open {
    const slot = this.model.slots.get(id);
    return slot === undefined ? null : this.slot(slot);
  }

  private slot(slot: number): Value | Open {
    const known = this.known.get(slot);
    if (known !== undefined) return known;
    const value = this.read(slot);
    this.known.set(slot, value);
    return value;
  }

  private read(slot: number): Value | Open {
    const entry = this.model.entries[slot];
    if (!entry) return null;
    if (entry.kind === 'calculation') return this.run(entry.formula);
    const value = this.values[entry.kind === 'length' ? entry.text : entry.id];
    if (value === undefined) return open;
    if (typeof value === 'string') {
      if (entry.kind === 'number') return exact(value);
      if (entry.kind === 'length') return exact(lettersOf(value));
      if (entry.kind === 'date' || (entry.kind === 'context' && entry.type.is === 'date'))
        return Day.read(value);
    }
    return Array.isArray(value) ? [...(value as string[])] : (value as string | boolean | null);
  }
}

const dependents = new WeakMap<CompiledModel, Map<string, ReadonlySet<number>>>();

/**
 * Slots whose value may be another when a row has another: its own, and the calculations that read it,
 * directly or not.
 */
function dependentsOf(model: CompiledModel, id: string): ReadonlySet<number> {
  const known = dependents.get(model) ?? readers(model);
  dependents.set(model, known);
  return known.get(id) ?? new Set();
}

/** The rows that formulas read, directly or through calculations. */
export function rowsRead(model: CompiledModel, formulas: readonly Formula[]): Set<string> {
  const slots = new Set(
    formulas.flatMap((formula) => formula.names.map((name) => model.slots.get(name) ?? -1)),
  );
  const all = dependents.get(model) ?? readers(model);
  dependents.set(model, all);
  return new Set(
    [...all].flatMap(([row, reading]) => ([...reading].some((slot) => slots.has(slot)) ? [row] : [])),
  );
}

function readers(model: CompiledModel): Map<string, Set<number>> {
  const found = new Map<string, Set<number>>();
  const readBy = new Map<number, ReadonlySet<string>>();
  const rowsOf = (slot: number): ReadonlySet<string> => {
    const before = readBy.get(slot);
    if (before) return before;
    const entry = model.entries[slot];
    const rows = new Set<string>(
      entry?.kind === 'length' ? [entry.text] : entry && entry.kind !== 'calculation' ? [entry.id] : [],
    );
    readBy.set(slot, rows);
    if (entry?.kind === 'calculation')
      for (const name of entry.formula.names)
        for (const row of rowsOf(model.slots.get(name) ?? -1)) rows.add(row);
    return rows;
  };
  model.entries.forEach((_, slot) => {
    for (const row of rowsOf(slot)) found.set(row, (found.get(row) ?? new Set()).add(slot));
  });
  return found;
}
