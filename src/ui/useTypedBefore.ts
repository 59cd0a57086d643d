import { useEffect, type RefObject } from 'react';
import { useLatest } from './useLatest';

/**
 * What somebody typed into a field before the page's script ran is told as if it were typed now; it would be lost
 * with the next drawing of the field else. `known` is what the page thinks stands there.
 */
export function useTypedBefore(
  field: RefObject<unknown>,
  known: string | undefined,
  onTyped: (field: HTMLInputElement) => void,
): void {
  const latest = useLatest({ known, onTyped });
  useEffect(() => {
    const { current } = field;
    if (!(current instanceof HTMLInputElement)) return;
    const { known: value, onTyped: tell } = latest.current;
    if (value !== undefined && current.value !== value) tell(current);
  }, [field, latest]);
}
