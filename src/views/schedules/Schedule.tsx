import { useEffect, useMemo, useState } from 'react';
import { ArrowLeft, FileText, ListPlus, Package } from 'lucide-react';
import type { ScheduleView } from '../../contract';
import { sentence } from '../../i18n';
import { Button, LinkButton, say } from '../../ui';
import { Menu } from '../../ui/Menu';
import { Grid, useGrid, type GridColumn, type Row } from '../../ui/grid';
import { mostPositions } from '../../core/schedule';
import { addressOf, ask, sentences, type Answer } from '../api';
import { Exchange } from '../parts/grid/Exchange';
import { useGridWords } from '../parts/grid/useGridWords';
import { useStays } from '../parts/useStays';
import { Speech, useSpeech } from '../speech';
import { HeadForm } from './HeadForm';
import { PackageDialog, Packages } from './Packages';
import { isUsed, rowOf, sameRows, sentRow, wrongIn } from './schedule-rows';
import { takenRows } from './schedule-sheet';
import css from './schedules.module.css';
import { usePositionColumns } from './usePositionColumns';

interface Props {
  language: string;
  view: ScheduleView;
}

export default function Schedule(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

const rowsOf = ({ positions }: ScheduleView): Row[] => positions.map(rowOf);

/** What stands where: rows in the manner of a spreadsheet, and the paper of it. */
function Page({ view: first }: Props) {
  const { t, language } = useSpeech();
  const [view, setView] = useState(first);
  // Rows as the grid begins with them; a turn counts how often it began.
  const [begun, setBegun] = useState(() => ({ rows: rowsOf(first), turn: 0 }));
  const [now, setNow] = useState<readonly Row[]>(begun.rows);
  const [packing, setPacking] = useState(false);
  const stored = useMemo(() => rowsOf(view), [view]);
  const used = now.filter(isUsed);
  const changed = !sameRows(used, stored);
  const wrong = useMemo(() => wrongIn(now), [now]);
  useStays(changed);
  const begin = (next: ScheduleView): void => {
    setView(next);
    const rows = rowsOf(next);
    setBegun(({ turn }) => ({ rows, turn: turn + 1 }));
    setNow(rows);
  };
  const did = async (answered: Promise<Answer<ScheduleView>>): Promise<ScheduleView | null> => {
    const told = await answered;
    if (told.ok) begin(told.value);
    else say(sentences(told.failures, t('request.failed')), true);
    return told.ok ? told.value : null;
  };
  const at = { id: view.id };
  const { version } = view;
  const keep = async (): Promise<void> => {
    const kept = await did(
      ask('PUT /schedules/{id}/positions', { at, input: { version, rows: used.map(sentRow) } }),
    );
    if (kept) say(t('schedule.kept'));
  };
  const take = async (quote: string): Promise<void> => {
    const before = view.positions.length;
    const taken = await did(ask('POST /schedules/{id}/lines', { at, input: { version, quote } }));
    if (!taken) return;
    const count = taken.positions.length - before;
    say(count === 0 ? t('schedule.tookNone') : t('schedule.took', { count }));
  };
  const columns = usePositionColumns(view.positions, view.may.edit);
  const takeSheet = (sheet: string[][]): void => {
    const taken = takenRows(sheet, columns, used, t, language);
    if (typeof taken === 'string') {
      say(taken, true);
      return;
    }
    setBegun(({ turn }) => ({ rows: taken.rows, turn: turn + 1 }));
    setNow(taken.rows);
    say(taken.says);
  };
  const { edit } = view.may;
  const [problem] = wrong;
  return (
    <div className={css.page}>
      <header className={css.head}>
        <a className={css.back} href="/schedules">
          <ArrowLeft size={14} aria-hidden /> {t('schedule.back')}
        </a>
        <HeadForm view={view} onKeep={(input) => did(ask('PUT /schedules/{id}', { at, input }))} />
        <div className={css.acts}>
          {edit && view.quotes.length > 0 && (
            <Menu
              label={t('schedule.fromQuote')}
              items={view.quotes.map(({ id, number, title }) => ({
                id,
                text: title === '' ? number : `${number}, ${title}`,
                onPick: () => {
                  if (changed) say(t('schedule.keepFirst'), true);
                  else void take(id);
                },
              }))}
            >
              <ListPlus size={14} aria-hidden /> {t('schedule.fromQuote')}
            </Menu>
          )}
          <Exchange
            out={(format) => addressOf('GET /schedules/{id}/file.{format}', { at: { ...at, format } })}
            onRows={edit ? takeSheet : null}
          />
          <LinkButton href={addressOf('GET /schedules/{id}/file.{format}', { at: { ...at, format: 'pdf' } })}>
            <FileText size={14} aria-hidden /> {t('schedule.document')}
          </LinkButton>
          {edit && (
            <Button
              disabled={changed || view.positions.length === 0}
              title={changed ? t('schedule.keepFirst') : undefined}
              onClick={() => setPacking(true)}
            >
              <Package size={14} aria-hidden /> {t('schedule.package')}
            </Button>
          )}
        </div>
      </header>
      <Rows key={begun.turn} rows={begun.rows} columns={columns} edit={edit} onRows={setNow} />
      <footer className={css.foot}>
        <Packages view={view} />
        <span role="status" className={problem ? css.wrong : css.quiet}>
          {problem && changed
            ? `${String(problem.at + 1)}: ${sentence(language, problem.code, problem.params)}`
            : changed
              ? t('schedule.notKept')
              : t('schedule.count', { count: used.length })}
        </span>
        {edit && (
          <>
            <Button disabled={!changed} onClick={() => begin(view)}>
              {t('house.back')}
            </Button>
            <Button look="main" disabled={!changed || wrong.length > 0} onClick={() => void keep()}>
              {t('house.keep')}
            </Button>
          </>
        )}
      </footer>
      <PackageDialog
        view={view}
        open={packing}
        onClose={() => setPacking(false)}
        onMade={() =>
          void ask('GET /schedules/{id}', { at }).then((told) => {
            if (told.ok) setView((was) => ({ ...was, packages: told.value.packages }));
          })
        }
      />
    </div>
  );
}

interface RowsProps {
  rows: readonly Row[];
  columns: readonly GridColumn[];
  edit: boolean;
  onRows: (rows: readonly Row[]) => void;
}

function Rows({ rows, columns, edit, onRows }: RowsProps) {
  const { t } = useSpeech();
  const words = useGridWords();
  const grid = useGrid(rows, { columns, most: edit ? mostPositions : rows.length });
  useEffect(() => onRows(grid.rows), [grid.rows, onRows]);
  return (
    <div className={css.rows}>
      <Grid label={t('schedule.positions')} grid={grid} words={words} className={css.grid} />
    </div>
  );
}
