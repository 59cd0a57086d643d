import { useLayoutEffect, useRef, type RefObject } from 'react';

/**
 * The value of the newest render, for what outlives a render: a listener, a function that stays the same. Never
 * to be read while rendering.
 */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}
