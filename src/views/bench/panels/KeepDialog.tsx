import { useState } from 'react';
import { Button, Dialog, DialogFoot, Field, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import type { Bench } from '../session/useBench';

/** Keeps the build under a name, to start others from. */
export function KeepDialog({
  open,
  bench,
  build,
  onClose,
}: {
  open: boolean;
  bench: Bench;
  build: string;
  onClose: () => void;
}) {
  const { t } = useSpeech();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const [error, setError] = useState<string>();
  const keep = async () => {
    if (!(await bench.settled())) {
      say(t('bench.refusedBuild'), true);
      return;
    }
    const answer = await ask('POST /saved', { input: { buildId: build, name, shared } });
    if (!answer.ok) {
      setError(sentences(answer.failures, t('request.failed')));
      return;
    }
    say(t('saved.kept', { name: name.trim() }));
    setName('');
    setError(undefined);
    onClose();
  };
  return (
    <Dialog title={t('saved.keep')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <form
        method="dialog"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <p>{t('saved.hint')}</p>
        <Field
          label={t('saved.name')}
          value={name}
          maxLength={120}
          data-first
          error={error}
          onChange={(event) => {
            setName(event.target.value);
            setError(undefined);
          }}
        />
        <p>
          <label>
            <input type="checkbox" checked={shared} onChange={(event) => setShared(event.target.checked)} />{' '}
            {t('saved.shared')}
          </label>
        </p>
        <DialogFoot>
          <Button onClick={onClose}>{t('newQuote.cancel')}</Button>
          <Button look="main" type="submit">
            {t('saved.go')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
