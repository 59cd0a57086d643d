/** How rows of a table are ordered, and by which column. */
export interface Order {
  by: string;
  descending: boolean;
}

/**
 * The order after a column's title was pressed: text begins with the first letter, numbers with the largest;
 * pressed again it turns, and the third time the rows stand as they were given.
 */
export function nextOrder(now: Order | null, by: string, isNumber: boolean): Order | null {
  if (now?.by !== by) return { by, descending: isNumber };
  return now.descending === isNumber ? { by, descending: !isNumber } : null;
}

/** Rows by a value of each: numbers by size, text as people sort it, digits within it by size; equal ones stay. */
export function sortedBy<T>(
  rows: readonly T[],
  value: (row: T) => string | number,
  descending: boolean,
): readonly T[] {
  const sign = descending ? -1 : 1;
  const collator = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });
  return [...rows].sort((a, b) => {
    const [left, right] = [value(a), value(b)];
    return (
      sign *
      (typeof left === 'number' && typeof right === 'number'
        ? left - right
        : collator.compare(String(left), String(right)))
    );
  });
}
