import { useEffect, useState } from 'react';
import type { JobView, ScheduleView } from '../../contract';
import { dateTime } from '../../i18n';
import { Button, Dialog, DialogFoot, Select, useLatest } from '../../ui';
import { Menu } from '../../ui/Menu';
import { ask, type Answer } from '../api';
import { JobHere } from '../parts/jobs/JobHere';
import { useJob } from '../parts/jobs/useJob';
import { useSpeech } from '../speech';
import css from './schedules.module.css';

/** Packages that were made, the newest first; one of before the last change says so. */
export function Packages({ view }: { view: ScheduleView }) {
  const { t, language } = useSpeech();
  if (view.packages.length === 0) return null;
  return (
    <Menu
      label={t('schedule.packages')}
      items={view.packages.map(({ id, name, madeAt, movedOn }) => ({
        id,
        text: [name, dateTime(madeAt, language), ...(movedOn ? [t('schedule.older')] : [])].join(' · '),
        href: `/api/shelf/${id}`,
        download: true,
      }))}
    >
      {t('schedule.packages')} {view.packages.length}
    </Menu>
  );
}

interface Props {
  view: ScheduleView;
  open: boolean;
  onClose: () => void;
  onMade: () => void;
}

/** How a package is wanted, how far it is, and where it is then. */
export function PackageDialog({ view, open, onClose, onMade }: Props) {
  const { t, language } = useSpeech();
  const [wanted, setWanted] = useState({
    as: 'zip' as 'zip' | 'pdf',
    language: language.startsWith('de') ? ('de' as const) : ('en' as const),
    drawings: true,
    dataSheets: true,
  });
  const job = useJob();
  const state = job.job?.state;
  const made = useLatest(onMade);
  useEffect(() => {
    if (state === 'done') made.current();
  }, [state, made]);
  const make = (): void => {
    const asked = ask('POST /schedules/{id}/package', { at: { id: view.id }, input: wanted }).then(
      (answer): Promise<Answer<JobView>> | Answer<JobView> =>
        answer.ok ? ask('GET /jobs/{id}', { at: { id: answer.value.job } }) : answer,
    );
    // What was made before is not taken for what is being made.
    job.forget();
    void job.begin(asked);
  };
  const tick = (field: 'drawings' | 'dataSheets') => (
    <label className={css.tick}>
      <input
        type="checkbox"
        checked={wanted[field]}
        onChange={({ target }) => setWanted({ ...wanted, [field]: target.checked })}
      />
      {t(`schedule.${field}`)}
    </label>
  );
  const busy = state === 'waiting' || state === 'running';
  return (
    <Dialog title={t('schedule.package')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <form
        method="dialog"
        className={css.begin}
        onSubmit={(event) => {
          event.preventDefault();
          make();
        }}
      >
        <p className={css.quiet}>{t('schedule.packageSays')}</p>
        <Select
          label={t('schedule.asName')}
          value={wanted.as}
          options={(['zip', 'pdf'] as const).map((value) => ({ value, text: t(`schedule.as.${value}`) }))}
          onChange={({ target }) => setWanted({ ...wanted, as: target.value as 'zip' | 'pdf' })}
        />
        <Select
          label={t('schedule.language')}
          value={wanted.language}
          options={(['en', 'de'] as const).map((value) => ({
            value,
            text: t(`schedule.languages.${value}`),
          }))}
          onChange={({ target }) => setWanted({ ...wanted, language: target.value as 'en' | 'de' })}
        />
        {tick('drawings')}
        {tick('dataSheets')}
        <JobHere here={job}>
          {({ outcome }) =>
            typeof outcome?.document === 'string' && (
              <a href={`/api/shelf/${outcome.document}`} download>
                {t('schedule.open')}
              </a>
            )
          }
        </JobHere>
        <DialogFoot>
          <Button look="main" type="submit" disabled={busy}>
            {t('schedule.make')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
