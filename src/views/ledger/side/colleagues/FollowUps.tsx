import type { FollowUpView } from '../../../../contract';
import { date, dateTime } from '../../../../i18n';
import { ask } from '../../../api';
import { DayField } from '../../../parts/DayField';
import { useSpeech } from '../../../speech';
import css from './colleagues.module.css';
import type { ColleaguesHere } from './useColleagues';

interface Props {
  followUps: readonly FollowUpView[];
  did: ColleaguesHere['did'];
}

/** Days to come back to the quote on; what is done stays to be read. */
export function FollowUps({ followUps, did }: Props) {
  const { t } = useSpeech();
  if (followUps.length === 0) return null;
  const sorted = [...followUps].sort((a, b) => Number(a.doneAt !== null) - Number(b.doneAt !== null));
  return (
    <section aria-label={t('colleague.followUps')}>
      <h3>{t('colleague.followUps')}</h3>
      <ul className={css.list}>
        {sorted.map((each) => (
          <One key={each.id} followUp={each} did={did} />
        ))}
      </ul>
    </section>
  );
}

function One({ followUp, did }: { followUp: FollowUpView } & Pick<Props, 'did'>) {
  const { t, language } = useSpeech();
  const { id, day, due, words, doneAt, doneBy } = followUp;
  const change = (input: { day?: string; done?: boolean }) =>
    void did(ask('PUT /follow-ups/{id}', { at: { id }, input }));
  const what = words === '' ? t('colleague.comeBack') : words;
  return (
    <li className={css.followUp} data-due={doneAt === null ? due : 'done'}>
      <label className={css.tick}>
        <input
          type="checkbox"
          checked={doneAt !== null}
          onChange={(event) => change({ done: event.target.checked })}
        />
        <span>{what}</span>
      </label>
      {doneAt === null ? (
        <DayField
          label={t('colleague.dayOf', { what })}
          value={day}
          onPick={(picked) => {
            if (picked !== '' && picked !== day) change({ day: picked });
          }}
        />
      ) : (
        <span className={css.under}>{date(day, language)}</span>
      )}
      <span className={css.under}>
        {doneAt === null
          ? t(`colleague.due.${due}`)
          : t('colleague.doneBy', { who: doneBy ?? '', at: dateTime(doneAt, language) })}{' '}
        · {followUp.for}
      </span>
    </li>
  );
}
