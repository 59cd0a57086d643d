import { useEffect } from 'react';

/** Asks before the page is left, where something would be lost. */
export function useStays(unkept: boolean): void {
  useEffect(() => {
    if (!unkept) return undefined;
    const stay = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [unkept]);
}
