import { useState } from 'react';
import { Pencil } from 'lucide-react';
import type { ScheduleHeadInput, ScheduleView } from '../../contract';
import { Button, Dialog, DialogFoot, say } from '../../ui';
import { ask, sentences } from '../api';
import { Sure } from '../parts/Sure';
import { useSpeech } from '../speech';
import { HeadFields, whole, type Head } from './HeadFields';
import css from './schedules.module.css';

interface Props {
  view: ScheduleView;
  onKeep: (input: ScheduleHeadInput) => Promise<ScheduleView | null>;
}

const headOf = ({ name, site, customer }: ScheduleView): Head => ({ name, site, customer, open: false });

/** What the schedule is called, where it is and for whom; changed in a dialog. */
export function HeadForm({ view, onKeep }: Props) {
  const { t } = useSpeech();
  const [is, setIs] = useState<'shut' | 'changing' | 'removing'>('shut');
  // A dialog that gives way to the next one tells that it was closed, too.
  const shut = (of: typeof is): void => setIs((now) => (now === of ? 'shut' : now));
  const [head, setHead] = useState<Head>(headOf(view));
  const change = (): void => {
    setHead(headOf(view));
    setIs('changing');
  };
  const keep = async (): Promise<void> => {
    const { name, site, customer } = head;
    const input = {
      version: view.version,
      name: name.trim(),
      site: site.trim(),
      customer: customer?.id ?? null,
    };
    if (await onKeep(input)) shut('changing');
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
        <Button look="plain" aria-label={t('schedule.head')} title={t('schedule.head')} onClick={change}>
          <Pencil size={14} aria-hidden />
        </Button>
      )}
      <Dialog
        title={t('schedule.head')}
        closeText={t('frame.close')}
        open={is === 'changing'}
        onClose={() => shut('changing')}
      >
        <form
          method="dialog"
          className={css.begin}
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <HeadFields head={head} onChange={setHead} />
          <DialogFoot>
            <Button onClick={() => setIs('removing')}>{t('schedule.remove')}</Button>
            <Button look="main" type="submit" disabled={!whole(head)}>
              {t('schedule.keepHead')}
            </Button>
          </DialogFoot>
        </form>
      </Dialog>
      {is === 'removing' && (
        <Sure
          title={t('schedule.sure.title', { name: view.name })}
          says={t('schedule.sure.says', {
            positions: t('schedule.count', { count: view.positions.length }),
            packages: t('schedule.packageCount', { count: view.packages.length }),
          })}
          no={t('schedule.sure.no')}
          yes={t('schedule.sure.yes')}
          onYes={() => void remove()}
          onClose={() => shut('removing')}
        />
      )}
    </div>
  );
}
