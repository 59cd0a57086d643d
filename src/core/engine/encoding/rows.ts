/**
 * Features and parameters as literals.
 *
 * Each row has a latent value, which it keeps while it is hidden, and literals for what formulas see of it:
 * "shown and this option".
 * A decision fixes the latent value, so that a decision on what does not exist now is at rest and comes back
 * with its row.
 */
import type { Formula } from '../../formula';
import { type DecisionValue, type Entry, codeOf } from '../../model';
import { always, never, not, type Lit, type Solver } from '../../solver';

interface RowBase {
  id: string;
  slot: number;
  /** Holds where the row exists. */
  shown: Lit;
}

/** A feature or parameter as literals. */
export type Row =
  /** One option, or none where `none` is not `never`. */
  | (RowBase & {
      kind: 'choice';
      ids: readonly string[];
      latent: readonly Lit[];
      taken: readonly Lit[];
      latentNone: Lit;
      none: Lit;
    })
  | (RowBase & { kind: 'many'; ids: readonly string[]; latent: readonly Lit[]; taken: readonly Lit[] })
  | (RowBase & { kind: 'yesno'; latent: Lit; yes: Lit; no: Lit })
  | (RowBase & { kind: 'number'; number: number; entry: Gridded });

/** What has values on a grid; of a text, its length. */
export type Gridded = Extract<Entry, { kind: 'number' | 'date' | 'length' }>;

/**
 * Makes the row of an entry; what shows it and how many options it asks is added by the encoding. Rows that
 * exist by the same formula and nothing else share the literal for it.
 */
export function makeRow(entry: Entry, slot: number, solver: Solver, existing: Map<Formula, Lit>): Row | null {
  if (entry.kind === 'context' || entry.kind === 'calculation' || entry.kind === 'text') return null;
  const shown = entry.shownWhen
    ? ((entry.shownBy ? undefined : existing.get(entry.shownWhen)) ?? solver.add())
    : always;
  if (entry.shownWhen && !entry.shownBy) existing.set(entry.shownWhen, shown);
  const base = { id: entry.kind === 'length' ? entry.text : entry.id, slot, shown };
  switch (entry.kind) {
    case 'number':
    case 'date':
    case 'length':
      return { ...base, kind: 'number', number: solver.addNumber(entry.grid.count), entry };
    case 'yesno': {
      const latent = solver.add();
      return {
        ...base,
        kind: 'yesno',
        latent,
        yes: both(solver, shown, latent),
        no: both(solver, shown, not(latent)),
      };
    }
    case 'feature': {
      const ids = entry.feature.options.map((option) => option.id);
      const latent = ids.map(() => solver.add());
      const taken = latent.map((lit) => both(solver, shown, lit));
      if (entry.many) return { ...base, kind: 'many', ids, latent, taken };
      const latentNone = entry.feature.least === 0 ? solver.add() : never;
      const all = latentNone === never ? latent : [...latent, latentNone];
      solver.addClause(all);
      solver.addAtMost(all, 1);
      return {
        ...base,
        kind: 'choice',
        ids,
        latent,
        taken,
        latentNone,
        none: both(solver, shown, latentNone),
      };
    }
  }
}

/** A literal that holds where both do. */
export function both(solver: Solver, a: Lit, b: Lit): Lit {
  if (a === always || a === b) return b;
  if (b === always) return a;
  if (a === never || b === never || a === not(b)) return never;
  const made = solver.add();
  solver.addClause([not(made), a]);
  solver.addClause([not(made), b]);
  solver.addClause([made, not(a), not(b)]);
  return made;
}

/** The latent value a decision fixes; null where the row has no such value. */
export function decided(
  row: Row,
  option: string | undefined,
  value: DecisionValue,
  solver: Solver,
): Lit[] | null {
  switch (row.kind) {
    case 'choice': {
      if (value === null) return row.latentNone === never ? null : [row.latentNone];
      const lit = typeof value === 'string' ? row.latent[row.ids.indexOf(value)] : undefined;
      return lit === undefined ? null : [lit];
    }
    case 'many': {
      const lit = row.latent[row.ids.indexOf(option ?? '')];
      return lit === undefined || typeof value !== 'boolean' ? null : [value ? lit : not(lit)];
    }
    case 'yesno':
      return typeof value === 'boolean' ? [value ? row.latent : not(row.latent)] : null;
    case 'number': {
      const code = typeof value === 'boolean' ? null : codeOf(row.entry.grid, value);
      return code === null ? null : between(row.number, code, code, solver);
    }
  }
}

/** What must hold for a row to be shown with this value; null where it has no such value. */
export function wanted(
  row: Row,
  option: string | undefined,
  value: DecisionValue,
  solver: Solver,
): Lit[] | null {
  const latent = decided(row, option, value, solver);
  return latent && [row.shown, ...latent].filter((lit) => lit !== always);
}

/** A number's lying between two codes, both included. */
export function between(number: number, from: number, to: number, solver: Solver): Lit[] {
  return [not(solver.atMost(number, from - 1)), solver.atMost(number, to)].filter((lit) => lit !== always);
}
