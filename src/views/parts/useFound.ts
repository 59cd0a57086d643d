import { useMemo, useState } from 'react';
import { foundBy } from '../../core/finding';
import type { FindField } from '../../ui';

/**
 * The rows that a typed text finds, and the field it is typed into. `textsOf` must be the same function at
 * every render.
 */
export function useFound<T>(
  rows: readonly T[],
  textsOf: (row: T) => readonly string[],
  start = '',
): { field: FindField; rows: readonly T[] } {
  const [text, setText] = useState(start);
  const found = useMemo(() => foundBy(rows, text, textsOf), [rows, text, textsOf]);
  return { field: { value: text, onChange: (event) => setText(event.target.value) }, rows: found };
}
