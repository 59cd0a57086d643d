import { plainAt, type PlainValue } from '../../model';
import type { Witness } from '../../solver';
import type { Row } from '../encoding/rows';

/** The value of a row in a build, as it travels. */
export function plainIn(row: Row, build: Witness): PlainValue {
  switch (row.kind) {
    case 'choice':
      return row.ids[row.taken.findIndex((lit) => build.holds(lit))] ?? null;
    case 'many':
      return row.ids.filter((_, index) => build.holds(row.taken[index] as number));
    case 'yesno':
      return build.holds(row.yes) ? true : build.holds(row.no) ? false : null;
    case 'number':
      return build.holds(row.shown) ? plainAt(row.entry.grid, build.codes[row.number] as number) : null;
  }
}
