import { useMemo, useState } from 'react';

export interface Found<T> {
  /** What is typed, and how to change it: the props of a field. */
  field: { value: string; onChange: (event: { target: { value: string } }) => void };
  rows: readonly T[];
}

/**
 * The rows that have every typed word in one of their texts, whatever the case.
 * `textsOf` must be the same function at every render.
 */
export function useFound<T>(rows: readonly T[], textsOf: (row: T) => readonly string[], start = ''): Found<T> {
  const [text, setText] = useState(start);
  const found = useMemo(() => {
    const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
    return words.length === 0 ? rows : rows.filter((row) => {
      const texts = textsOf(row).map((each) => each.toLowerCase());
      return words.every((word) => texts.some((each) => each.includes(word)));
    });
  }, [rows, text, textsOf]);
  return { field: { value: text, onChange: (event) => setText(event.target.value) }, rows: found };
}
