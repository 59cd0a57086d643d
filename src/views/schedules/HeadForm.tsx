import { useState } from 'react';
import { Pencil } from 'lucide-react';
import type { ScheduleView } from '../../contract';
import { Button, Dialog, DialogFoot, Field, say } from '../../ui';
import { ask, sentences } from '../api';
import { useSpeech } from '../speech';
import css from './schedules.module.css';

interface Props {
  view: ScheduleView;
  onKeep: (input: { version: number; name: string; site: string }) => Promise<ScheduleView | null>;
}

/** What the schedule is called, where it is and for whom; changed in a dialog. */
export function HeadForm({ view, onKeep }: Props) {
  const { t } = useSpeech();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(view.name);
  const [site, setSite] = useState(view.site);
  const keep = async (): Promise<void> => {
    if (await onKeep({ version: view.version, name: name.trim(), site: site.trim() })) setOpen(false);
  };
  const remove = async (): Promise<void> => {
    const answer = await ask('DELETE /schedules/{id}', { at: { id: view.id } });
    if (answer.ok) window.location.assign('/schedules');
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <div className={css.title}>
      <h1>{view.name}</h1>
      <span className={css.quiet}>
        {[view.site, view.customer?.name ?? t('schedule.noCustomer'), view.owner].filter(Boolean).join(' · ')}
      </span>
      {view.may.edit && (
        <Button
          look="plain"
          aria-label={t('schedule.head')}
          title={t('schedule.head')}
          onClick={() => setOpen(true)}
        >
          <Pencil size={14} aria-hidden />
        </Button>
      )}
      <Dialog
        title={t('schedule.head')}
        closeText={t('frame.close')}
        open={open}
        onClose={() => setOpen(false)}
      >
        <form
          method="dialog"
          className={css.begin}
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <Field
            label={t('schedule.name')}
            maxLength={120}
            value={name}
            onChange={({ target }) => setName(target.value)}
          />
          <Field
            label={t('schedule.site')}
            maxLength={200}
            value={site}
            onChange={({ target }) => setSite(target.value)}
          />
          <DialogFoot>
            <Button onClick={() => void remove()}>{t('schedule.remove')}</Button>
            <Button look="main" type="submit" disabled={name.trim() === ''}>
              {t('schedule.keepHead')}
            </Button>
          </DialogFoot>
        </form>
      </Dialog>
    </div>
  );
}
