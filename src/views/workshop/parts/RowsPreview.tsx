import { useMemo, useState } from 'react';
import type { DraftView } from '../../../contract';
import { outlineRows, type OutlineRow } from '../../../core/modelling';
import { sentence } from '../../../i18n';
import { Button, Dialog, DialogFoot, say } from '../../../ui';
import { Grid, useGrid, type GridColumn, type Row } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech, type InWords } from '../../speech';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
  /** As they were pasted, or stand in a file. */
  rows: readonly (readonly string[])[];
  /** The feature that options go into, and the section that rows go into. */
  into?: string | undefined;
  section?: string | undefined;
  /** They go into the cells, as in any spreadsheet. */
  onCells?: (() => void) | undefined;
  onClose: () => void;
}

/** What each row of a spreadsheet becomes, and what is wrong in it, before it is done. */
export function RowsPreview(props: Props) {
  const { t } = useSpeech();
  return (
    <Dialog title={t('draft.paste.title')} closeText={t('frame.close')} open onClose={props.onClose}>
      <Body {...props} />
    </Dialog>
  );
}

function Body({ draft, view, rows, into, section, onCells, onClose }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const gridWords = useGridWords();
  // What it was pasted into does not change beneath it.
  const [{ document }] = useState(draft);
  const read = useMemo(
    () =>
      outlineRows(document, rows, {
        language,
        isItem: (sku) => Object.hasOwn(view.items, sku),
        ...(into === undefined ? {} : { into }),
        ...(section === undefined ? {} : { section }),
      }),
    [document, rows, language, view.items, into, section],
  );
  const columns = useMemo(
    (): GridColumn[] =>
      [
        { id: 'becomes', title: t('draft.paste.becomes'), width: 130 },
        { id: 'name', title: t('draft.rows.name'), width: 210 },
        { id: 'id', title: t('draft.rows.id'), width: 150, kind: 'code' as const },
        { id: 'wrong', title: t('draft.paste.wrong'), width: 360 },
      ].map((column) => ({ ...column, read: (kept: string) => ({ kept }) })),
    [t],
  );
  const lines = useMemo(
    () => read.rows.map((row) => lineOf(row, rows[row.row] ?? [], words)),
    [read, rows, words],
  );
  const grid = useGrid(lines, { columns, fixed: true });
  const made = read.rows.filter(({ becomes }) => becomes !== null).length;
  const wrong = read.rows.filter(({ problems }) => problems.length > 0).length;
  const take = (): void => {
    const problem = draft.session.edit(read.edit);
    if (problem) {
      say(sentence(language, problem.code, { ...problem.params }), true);
      return;
    }
    say(t('draft.paste.done', { count: made }));
    onClose();
  };
  return (
    <>
      <p>
        {t('draft.paste.counts', { count: made })}{' '}
        {wrong > 0 && t('draft.paste.wrongCount', { count: wrong })}
      </p>
      <div className={css.preview}>
        <Grid label={t('draft.paste.title')} grid={grid} words={gridWords} className={css.grid} />
      </div>
      <DialogFoot>
        {onCells && <Button onClick={onCells}>{t('draft.paste.cells')}</Button>}
        <Button onClick={onClose}>{t('draft.paste.leave')}</Button>
        <Button look="main" disabled={made === 0} onClick={take}>
          {t('draft.paste.take', { count: made })}
        </Button>
      </DialogFoot>
    </>
  );
}

function lineOf(
  { row, becomes, problems }: OutlineRow,
  cells: readonly string[],
  { t, language }: InWords,
): Row {
  const what = becomes
    ? t(`draft.paste.is.${becomes.is}${becomes.how === 'changed' ? 'Changed' : ''}`)
    : t('draft.paste.is.nothing');
  const told = problems.map(({ code, params }) => sentence(language, code, { ...params, where: '' }));
  return {
    id: String(row),
    depth: 0,
    cells: [
      what,
      becomes?.name ?? cells.find((cell) => cell.trim() !== '') ?? '',
      becomes ? [becomes.of, becomes.id].filter(Boolean).join('.') : '',
      told.join(' '),
    ],
  };
}
