import { useEffect, useState } from 'react';
import { useLatest } from '../../ui';
import type { Answer } from '../api';

interface Came<T> {
  of: unknown;
  answer: Answer<T>;
}

/**
 * What the server answers to a question: asked when `question` is another, told apart by identity, and forgotten
 * when it is none (null). `answer` belongs to this very question; `last` is what came last, while the next is
 * under way too. `again` asks once more.
 */
export function useAnswer<T>(
  question: unknown,
  ask: () => Promise<Answer<T>>,
): { answer: Answer<T> | undefined; last: Answer<T> | undefined; again: () => Promise<void> } {
  const [came, setCame] = useState<Came<T>>();
  const latest = useLatest({ ask, question });
  useEffect(() => {
    if (question === null) return undefined;
    let current = true;
    void latest.current.ask().then((answer) => {
      if (current) setCame({ of: question, answer });
    });
    return () => {
      current = false;
    };
  }, [question, latest]);
  // An answer to what is not asked any more is not shown when it is asked again: it may be another by then.
  if (question === null && came) setCame(undefined);
  const again = async () => {
    const answer = await latest.current.ask();
    if (latest.current.question === question) setCame({ of: question, answer });
  };
  return {
    answer: came !== undefined && Object.is(came.of, question) ? came.answer : undefined,
    last: came?.answer,
    again,
  };
}
