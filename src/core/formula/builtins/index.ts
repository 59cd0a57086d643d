/** The standard's functions that models use. Each answers null where the standard does. */
import { yesno, type Builtin } from './builtin';
import { lists } from './lists';
import { numbers } from './numbers';
import { texts } from './texts';
import { times } from './times';

export type { Builtin } from './builtin';
/** All functions by name. */
export const builtins: Readonly<Record<string, Builtin>> = {
  not: {
    least: 1,
    most: 1,
    takes: ['yesno'],
    type: () => yesno,
    apply: ([value]) => (typeof value === 'boolean' ? !value : null),
  },
  ...numbers,
  ...texts,
  ...lists,
  ...times,
};
