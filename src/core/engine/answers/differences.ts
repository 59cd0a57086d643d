import type { PlainValue } from '../../model';
import type { Source, State } from '../types';

/** A row whose value is another than before. */
export interface Difference {
  row: string;
  before: PlainValue | undefined;
  after: PlainValue | undefined;
  source: Source;
}

/** What moved between two states, in the order of the rows; hidden rows count as having no value. */
export function differences(before: State, after: State): Difference[] {
  return Object.keys(after.rows).flatMap((row) => {
    const [was, is] = [visible(before, row), visible(after, row)];
    const at = after.rows[row];
    // A default that waits for another choice has not moved; it comes back with that choice.
    if (at?.shown && is === undefined && !at.todo) return [];
    return JSON.stringify(was) === JSON.stringify(is)
      ? []
      : [{ row, before: was, after: is, source: after.rows[row]?.source ?? 'open' }];
  });
}

function visible(state: State, row: string): PlainValue | undefined {
  const at = state.rows[row];
  return at?.shown ? at.value : undefined;
}
