/** What the worker says of a rule once nothing is typed for a moment and the draft compiles. */
import { useEffect, useState } from 'react';
import { useLatest } from '../../../ui';
import type { Draft } from '../session/useDraft';

/** Keys come faster than this, in milliseconds, while somebody types. */
const rest = 400;

/** The answer for a rule; what was said last stays until there is another, nothing of another rule. */
export function useLooked<T>(draft: Draft, rule: string, ask: (rule: string) => Promise<T | null>): T | null {
  const [seen, setSeen] = useState<{ of: string; look: T | null } | null>(null);
  const asking = useLatest(ask);
  const { document, context, trying, tried } = draft;
  const compiles = !trying && tried !== null && tried.problems.length === 0;
  useEffect(() => {
    if (!compiles) return undefined;
    let current = true;
    const timer = setTimeout(() => {
      void asking.current(rule).then((look) => {
        if (current) setSeen({ of: rule, look });
      });
    }, rest);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [asking, rule, document, context, compiles]);
  return seen?.of === rule ? seen.look : null;
}
