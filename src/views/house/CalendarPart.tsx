import { useMemo, useState } from 'react';
import type { CalendarInput, HouseView } from '../../contract';
import { afterWorkingDays, promisedDay, type WorkingCalendar } from '../../core/production';
import { date } from '../../i18n';
import { Combobox, Field, Select } from '../../ui';
import { DateField } from '../../ui/DateField';
import { Grid, isBlank, isWrong, useGrid, type Row } from '../../ui/grid';
import { ask } from '../api';
import { countryColumn, dayColumn, textColumn } from '../parts/grid/columns';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import { Foot } from './Foot';
import type { Keep } from './keep';
import css from './house.module.css';

interface Props {
  view: HouseView;
  today: string;
  countries: readonly string[];
  onKeep: Keep;
}

const mostClosed = 10_000;
type Closed = CalendarInput['closed'][number];

/** When the house works: its zone, the days of its week, and holidays by country, with a promise tried beside. */
export function CalendarPart({ view, today, countries, onKeep }: Props) {
  const { t } = useSpeech();
  const { calendar } = view;
  const [zone, setZone] = useState(calendar.zone);
  const [workdays, setWorkdays] = useState<readonly number[]>(calendar.workdays);
  const [busy, setBusy] = useState(false);
  const columns = useColumns(countries);
  const grid = useGrid(
    useMemo(() => rowsOf(calendar.closed), [calendar.closed]),
    { columns, most: mostClosed },
  );
  const words = useGridWords();
  const closed = useMemo(() => closedIn(grid.rows), [grid.rows]);
  const changed = grid.changed || zone !== calendar.zone || workdays.join() !== calendar.workdays.join();
  const early = closed.findIndex(({ from, to }) => to < from);
  const wrong =
    grid.wrong.length > 0
      ? t('house.toMend')
      : workdays.length === 0
        ? t('house.noWorkday')
        : early >= 0
          ? `${words.row(early + 1)}: ${t('house.endsBefore')}`
          : undefined;
  const show = (now: CalendarInput): void => {
    setZone(now.zone);
    setWorkdays(now.workdays);
    grid.session.begin(rowsOf(now.closed));
  };
  const keep = async (): Promise<void> => {
    setBusy(true);
    const input = { version: calendar.version, zone, workdays: [...workdays], closed };
    const answer = await onKeep(ask('PUT /house/calendar', { input }));
    setBusy(false);
    if (answer.ok) show(answer.value.calendar);
  };
  return (
    <form
      noValidate
      className={css.form}
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <div className={css.calendar}>
        <div className={css.closed}>
          <h2 className={css.legend}>{t('house.closed')}</h2>
          <Grid label={t('house.closed')} grid={grid} words={words} />
          <p className={css.quiet}>{t('house.everywhere')}</p>
        </div>
        <div className={css.aside}>
          <Zone zone={zone} onZone={setZone} />
          <Week workdays={workdays} onWorkdays={setWorkdays} />
          <Try
            {...{ today, countries }}
            calendar={wrong === undefined ? { workdays, closed } : null}
            made={view.company.country}
          />
        </div>
      </div>
      <Foot changed={changed} busy={busy} wrong={changed ? wrong : undefined} onBack={() => show(calendar)} />
    </form>
  );
}

function useColumns(countries: readonly string[]) {
  const words = useSpeech();
  return useMemo(() => {
    const { t } = words;
    return [
      dayColumn({ id: 'from', title: t('house.from'), width: 130, needed: t('house.needFrom') }, words),
      dayColumn({ id: 'to', title: t('house.to'), width: 130 }, words),
      countryColumn({ id: 'country', title: t('house.country'), width: 160 }, countries, words),
      textColumn({ id: 'name', title: t('house.closedName'), width: 240 }, 500, words),
    ];
  }, [countries, words]);
}

const rowsOf = (closed: readonly Closed[]): Row[] =>
  closed.map(({ from, to, country, name }, at) => ({
    id: `closed-${String(at)}`,
    depth: 0,
    cells: [from, to === from ? '' : to, country ?? '', name],
  }));

/** What is closed by what stands in the rows; what cannot be read is as if it were not there. */
const closedIn = (rows: readonly Row[]): Closed[] =>
  rows
    .filter((row) => !isBlank(row))
    .map(({ cells }) => {
      const [from = '', to = '', country = '', name = ''] = cells.map((cell) => (isWrong(cell) ? '' : cell));
      return { from, to: to === '' ? from : to, country: country === '' ? null : country, name };
    });

function Zone({ zone, onZone }: { zone: string; onZone: (zone: string) => void }) {
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

function Week({
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

/** What would be promised by the calendar as it is typed. */
function Try({
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
      {count !== null && calendar && (
        <output className={css.promise}>
          <span>
            {t('house.made', { day: date(afterWorkingDays(from, count, calendar, made), language) })}
          </span>
          <strong>
            {t('house.there', { day: date(promisedDay(from, count, calendar, { made, goes }), language) })}
          </strong>
        </output>
      )}
    </fieldset>
  );
}
