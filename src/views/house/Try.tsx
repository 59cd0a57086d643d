import { useMemo, useState } from 'react';
import { afterWorkingDays, promisedDay, type WorkingCalendar } from '../../core/production';
import { date } from '../../i18n';
import { Field, Select } from '../../ui';
import { DateField } from '../../ui/DateField';
import { useSpeech } from '../speech';
import css from './house.module.css';

/** What would be promised by the calendar as it is typed. */
export function Try({
  calendar,
  made,
  today,
  countries,
}: {
  /** Null while it cannot be counted by. */
  calendar: WorkingCalendar | null;
  made: string;
  today: string;
  countries: readonly string[];
}) {
  const { t, language } = useSpeech();
  const [days, setDays] = useState('20');
  const [from, setFrom] = useState(today);
  const [goes, setGoes] = useState(made);
  const names = useMemo(() => new Intl.DisplayNames([language], { type: 'region' }), [language]);
  const count = /^\d{1,3}$/.test(days.trim()) ? Number(days) : null;
  return (
    <fieldset className={css.try}>
      <legend className={css.legend}>{t('house.try')}</legend>
      <Field
        label={t('house.tryDays')}
        inputMode="numeric"
        value={days}
        onChange={(event) => setDays(event.target.value)}
      />
      <label className={css.fieldLike}>
        <span className={css.label}>{t('house.tryFrom')}</span>
        <DateField
          label={t('house.tryFrom')}
          value={from}
          shown={date(from, language)}
          language={language}
          words={{
            open: t('day.calendar', { what: t('house.tryFrom') }),
            notADay: (value) => t('day.notADay', { value }),
          }}
          onPick={(day) => setFrom(day === '' ? today : day)}
        />
      </label>
      <Select
        label={t('house.tryCountry')}
        value={goes}
        options={[...new Set([made, ...countries])].map((code) => ({
          value: code,
          text: names.of(code) ?? code,
        }))}
        onChange={(event) => setGoes(event.target.value)}
      />
      {count !== null && calendar && <Promised {...{ calendar, made, goes, from }} days={count} />}
    </fieldset>
  );
}

/** When it would be made, and there. */
function Promised({
  calendar,
  made,
  goes,
  from,
  days,
}: {
  calendar: WorkingCalendar;
  made: string;
  goes: string;
  from: string;
  days: number;
}) {
  const { t, language } = useSpeech();
  return (
    <output className={css.promise}>
      <span>{t('house.made', { day: date(afterWorkingDays(from, days, calendar, made), language) })}</span>
      <strong>
        {t('house.there', { day: date(promisedDay(from, days, calendar, { made, goes }), language) })}
      </strong>
    </output>
  );
}
