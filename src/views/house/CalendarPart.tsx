import { useMemo, useState } from 'react';
import type { CalendarInput, HouseView } from '../../contract';
import { Grid, isBlank, isWrong, useGrid, type Row } from '../../ui/grid';
import { ask } from '../api';
import { countryColumn, dayColumn, textColumn } from '../parts/grid/columns';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import type { Keep } from './keep';
import { Try } from './Try';
import { Week, Zone } from './Week';
import { SentForm } from './SentForm';
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
    (grid.wrong.length > 0 && t('house.toMend')) ||
    (workdays.length === 0 && t('house.noWorkday')) ||
    (early >= 0 && `${words.row(early + 1)}: ${t('house.endsBefore')}`) ||
    undefined;
  const show = (now: CalendarInput): void => {
    setZone(now.zone);
    setWorkdays(now.workdays);
    grid.session.begin(rowsOf(now.closed));
  };
  const keep = async (): Promise<void> => {
    const input = { version: calendar.version, zone, workdays: [...workdays], closed };
    const answer = await onKeep(ask('PUT /house/calendar', { input }));
    if (answer.ok) show(answer.value.calendar);
  };
  return (
    <SentForm changed={changed} wrong={wrong} onKeep={keep} onBack={() => show(calendar)}>
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
    </SentForm>
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
