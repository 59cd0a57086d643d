import { useCallback, useEffect, useState } from 'react';
import type { ColleaguesView } from '../../../../contract';
import { say } from '../../../../ui';
import { ask, sentences, type Answer } from '../../../api';
import { useLive } from '../../../parts/useLive';
import { useSpeech } from '../../../speech';

/** What colleagues know of a quote, and what somebody does about it. */
export interface ColleaguesHere {
  view: ColleaguesView | null;
  /** Shows what came of it; false where it was refused, which is told then. */
  did: (answered: Promise<Answer<ColleaguesView>>) => Promise<boolean>;
}

/** Kept as it stands by now: others write at the same time. */
export function useColleagues(id: string): ColleaguesHere {
  const { t } = useSpeech();
  const [view, setView] = useState<ColleaguesView | null>(null);
  const look = useCallback((): void => {
    void ask('GET /quotes/{id}/colleagues', { at: { id } }).then((answer) => {
      if (answer.ok) setView(answer.value);
    });
  }, [id]);
  useEffect(look, [look]);
  useLive((word) => {
    if (word === 'gap' || word.quote === id) look();
  });
  const did = async (answered: Promise<Answer<ColleaguesView>>): Promise<boolean> => {
    const told = await answered;
    if (told.ok) setView(told.value);
    else say(sentences(told.failures, t('request.failed')), true);
    return told.ok;
  };
  return { view, did };
}
