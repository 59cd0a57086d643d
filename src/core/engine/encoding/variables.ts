/** What a person can decide, one variable each, and every value it can have as a wish. */
import type { DecisionValue } from '../../model';
import { always, never, not, type Lit } from '../../solver';
import type { Encoding } from './encoding';
import type { Wish } from '../answers/witness-cache';
import type { Row } from './rows';

/** One value of a shown row. */
export interface Code {
  value: DecisionValue;
  wish: Wish;
  /** The row's having another value. */
  otherwise: Wish;
}

/** Something that can be decided, and every value it can have. */
export interface Variable {
  index: number;
  /** "feature", "feature.option" or "parameter". */
  on: string;
  row: Row;
  /** Empty for a number, whose values are asked as ranges. */
  codes: readonly Code[];
  /** The row's existing, and its not existing; null where it always exists. */
  shown: Wish;
  hidden: Wish | null;
}

/** All that can be decided of a model. */
export function variablesOf(encoding: Encoding): Variable[] {
  const variables: Variable[] = [];
  const wish = (lits: readonly Lit[]): Wish => ({
    key: encoding.newKey(),
    lits: lits.filter((lit) => lit !== always),
  });
  for (const row of encoding.rows) {
    const code = (value: DecisionValue, lits: readonly Lit[], others: readonly Lit[]): Code => ({
      value,
      wish: wish(lits),
      otherwise: wish([row.shown, ...others]),
    });
    const shown = wish([row.shown]);
    const hidden = row.shown === always ? null : wish([not(row.shown)]);
    const add = (on: string, codes: Code[]): void => {
      variables.push({ index: variables.length, on, row, codes, shown, hidden });
    };
    switch (row.kind) {
      case 'choice': {
        const options = row.ids.map((id, index) =>
          code(id, [row.taken[index] as Lit], [not(row.taken[index] as Lit)]),
        );
        add(row.id, row.none === never ? options : [...options, code(null, [row.none], [not(row.none)])]);
        break;
      }
      case 'many':
        row.ids.forEach((id, index) => {
          const lit = row.taken[index] as Lit;
          add(`${row.id}.${id}`, [code(true, [lit], [not(lit)]), code(false, [row.shown, not(lit)], [lit])]);
        });
        break;
      case 'yesno':
        add(row.id, [code(true, [row.yes], [not(row.yes)]), code(false, [row.no], [not(row.no)])]);
        break;
      case 'number':
        add(row.id, []);
    }
  }
  return variables;
}
