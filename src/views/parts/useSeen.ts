import { useEffect } from 'react';
import { useLatest } from '../../ui';

/** Calls something now and then while the page is seen; nothing while it is not, and at once when it is again. */
export function useWhileSeen(act: () => void, seconds: number): void {
  const latest = useLatest(act);
  useEffect(() => {
    const look = (): void => {
      if (!document.hidden) latest.current();
    };
    const timer = setInterval(look, seconds * 1000);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [latest, seconds]);
}
