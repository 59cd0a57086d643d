import { useMemo, useState } from 'react';
import { Combobox } from '../../ui';
import { useSpeech } from '../speech';
import css from './house.module.css';

/** The time zone of the house, found by typing a part of its name. */
export function Zone({ zone, onZone }: { zone: string; onZone: (zone: string) => void }) {
  const { t } = useSpeech();
  const [text, setText] = useState<string>();
  const zones = useMemo(() => Intl.supportedValuesOf('timeZone'), []);
  const typed = text?.trim().toLowerCase().replaceAll(' ', '_') ?? '';
  const found = typed === '' ? [] : zones.filter((each) => each.toLowerCase().includes(typed)).slice(0, 8);
  return (
    <div>
      <Combobox
        label={t('house.zone')}
        placeholder=""
        text={text ?? zone}
        none={t('house.badZone')}
        options={found.map((each) => ({ id: each, text: each, detail: hourIn(each) }))}
        onText={setText}
        onChoose={({ id }) => {
          onZone(id);
          setText(undefined);
        }}
      />
      <p className={css.quiet}>{t('house.zoneHint')}</p>
    </div>
  );
}

const hourIn = (timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit' }).format(new Date());

/** The days of the week that are worked. */
export function Week({
  workdays,
  onWorkdays,
}: {
  workdays: readonly number[];
  onWorkdays: (days: readonly number[]) => void;
}) {
  const { t, language } = useSpeech();
  const names = useMemo(() => {
    const name = new Intl.DateTimeFormat(language, { weekday: 'short', timeZone: 'UTC' });
    // 5 January 1970 was a Monday.
    return [1, 2, 3, 4, 5, 6, 7].map((day) => name.format(new Date(Date.UTC(1970, 0, 4 + day))));
  }, [language]);
  return (
    <fieldset className={css.week}>
      <legend className={css.label}>{t('house.workdays')}</legend>
      {names.map((name, at) => {
        const day = at + 1;
        const worked = workdays.includes(day);
        return (
          <label key={name} data-on={worked}>
            <input
              type="checkbox"
              checked={worked}
              onChange={() =>
                onWorkdays(worked ? workdays.filter((each) => each !== day) : [...workdays, day].sort())
              }
            />
            {name}
          </label>
        );
      })}
    </fieldset>
  );
}
