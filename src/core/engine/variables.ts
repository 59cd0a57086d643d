/** What a person can decide, one variable each, and every value it can have as literals. */
import type { DecisionValue } from '../model';
import { always, never, not, type Lit } from '../solver';
import type { Encoding } from './encoding';
import type { Row } from './rows';

export interface Code {
  /** Different for every code of a model. */
  key: number;
  value: DecisionValue;
  /** What must hold for a shown row to have the value. */
  lits: readonly Lit[];
  /** What must hold for a shown row to have another value; each alternative alone. */
  otherwise: readonly Lit[];
}

export interface Variable {
  index: number;
  /** "feature", "feature.option" or "parameter". */
  on: string;
  row: Row;
  /** Empty for a number, whose values are asked as ranges. */
  codes: readonly Code[];
  /** What must hold for the row to be shown, and to be hidden; null where it cannot be hidden. */
  shown: Code;
  hidden: Code | null;
}

export function variablesOf(encoding: Encoding): Variable[] {
  const variables: Variable[] = [];
  let next = 0;
  const code = (row: Row, value: DecisionValue, lit: Lit, lits: Lit[]): Code => {
    next += 2;
    return { key: next, value, lits: plain(lits), otherwise: plain([row.shown, not(lit)]) };
  };
  for (const row of encoding.rows) {
    const shown = code(row, null, row.shown, [row.shown]);
    const hidden = row.shown === always ? null : code(row, null, not(row.shown), [not(row.shown)]);
    const add = (on: string, codes: Code[]): void => {
      variables.push({ index: variables.length, on, row, codes, shown, hidden });
    };
    switch (row.kind) {
      case 'choice': {
        const options = row.ids.map((id, index) => code(row, id, row.taken[index] as Lit, [row.taken[index] as Lit]));
        add(row.id, row.none === never ? options : [...options, code(row, null, row.none, [row.none])]);
        break;
      }
      case 'many':
        row.ids.forEach((id, index) => {
          const lit = row.taken[index] as Lit;
          add(`${row.id}.${id}`, [code(row, true, lit, [lit]), code(row, false, not(lit), [row.shown, not(lit)])]);
        });
        break;
      case 'yesno':
        add(row.id, [code(row, true, row.yes, [row.yes]), code(row, false, row.no, [row.no])]);
        break;
      case 'number':
        add(row.id, []);
    }
  }
  return variables;
}

const plain = (lits: readonly Lit[]): Lit[] => lits.filter((lit) => lit !== always);
