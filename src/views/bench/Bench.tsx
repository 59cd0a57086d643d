import { useCallback, useState } from 'react';
import type { BenchView } from '../../contract';
import { say } from '../../ui';
import { ask, sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import { OneBuild } from './OneBuild';

interface Props {
  language: string;
  view: BenchView;
}

export default function Bench(props: Props) {
  return (
    <Speech language={props.language}>
      <Talk first={props.view} />
    </Speech>
  );
}

/**
 * One talk: its variants next to each other, one of them on the Bench. Going to another is no page of its
 * own.
 */
function Talk({ first }: { first: BenchView }) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  const open = useCallback(
    async (id: string) => {
      const answer = await ask('GET /builds/{id}', { at: { id } });
      if (answer.ok) {
        window.history.replaceState(null, '', `/bench/${id}`);
        setView(answer.value);
      } else say(sentences(answer.failures, t('request.failed')), true);
    },
    [t],
  );
  const prefer = useCallback((change: Partial<BenchView['preferences']>) => {
    setView((before) => ({ ...before, preferences: { ...before.preferences, ...change } }));
    void ask('PATCH /me', { input: change });
  }, []);
  return (
    <OneBuild
      key={`${view.build.id} ${String(view.modelVersion.number)}`}
      view={view}
      onOpen={open}
      onPrefer={prefer}
    />
  );
}
