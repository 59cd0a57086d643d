import { describe, expect, it } from 'vitest';
import { nextOrder, sortedBy } from './order';

describe('the order of a table', () => {
  it('begins with the first letter, turns, and goes back to how rows were given', () => {
    const first = nextOrder(null, 'name', false);
    expect(first).toEqual({ by: 'name', descending: false });
    const second = nextOrder(first, 'name', false);
    expect(second).toEqual({ by: 'name', descending: true });
    expect(nextOrder(second, 'name', false)).toBeNull();
  });

  it('begins with the largest of numbers', () => {
    const first = nextOrder({ by: 'name', descending: true }, 'price', true);
    expect(first).toEqual({ by: 'price', descending: true });
    expect(nextOrder(first, 'price', true)).toEqual({ by: 'price', descending: false });
  });

  it('sorts digits within text by size, whatever the case, and keeps equal ones', () => {
    const rows = [{ is: 'TN-15' }, { is: 'tn-4' }, { is: 'BC-PRT', nth: 1 }, { is: 'bc-prt', nth: 2 }];
    const texts = (descending: boolean) => sortedBy(rows, (row) => row.is, descending).map((row) => row.is);
    expect(texts(false)).toEqual(['BC-PRT', 'bc-prt', 'tn-4', 'TN-15']);
    expect(texts(true)).toEqual(['TN-15', 'tn-4', 'BC-PRT', 'bc-prt']);
    expect(sortedBy([{ n: 2 }, { n: 10 }, { n: -1 }], (row) => row.n, false).map((row) => row.n)).toEqual([
      -1, 2, 10,
    ]);
  });
});
