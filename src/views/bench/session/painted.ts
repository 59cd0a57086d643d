import { startTransition, useLayoutEffect, useState } from 'react';

/** Resolves once the frame that is made next is on the screen, or soon where the page is not seen. */
export const painted = (): Promise<void> =>
  new Promise((done) => {
    const late = setTimeout(done, 300);
    requestAnimationFrame(() =>
      setTimeout(() => {
        clearTimeout(late);
        done();
      }),
    );
  });

/** A value as it was before the last change, until what that changed elsewhere is on the screen. */
export function useAfterPaint<T>(value: T): T {
  const [shown, setShown] = useState(value);
  useLayoutEffect(() => {
    let current = true;
    void painted().then(() => {
      if (current) startTransition(() => setShown(value));
    });
    return () => {
      current = false;
    };
  }, [value]);
  return shown;
}
