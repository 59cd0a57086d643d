import { useEffect, useMemo } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import type { CompanyInput } from '../../contract';
import { Grid, isBlank, isWrong, useGrid, type GridColumn, type Row } from '../../ui/grid';
import { useLatest } from '../../ui';
import { countryColumn, textColumn } from '../parts/grid/columns';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import css from './house.module.css';

type Which = 'addresses' | 'taxIds';

interface Props {
  form: UseFormReturn<CompanyInput>;
  countries: readonly string[];
  /** Whether something in a table is to be mended. */
  onMend: (which: Which, mend: boolean) => void;
}

/** Where else the house is, and its numbers for tax in other countries. */
export function Elsewhere({ form, countries, onMend }: Props) {
  const words = useSpeech();
  const { t } = words;
  const [addresses, taxIds] = useMemo(() => {
    const needed = t('input.required');
    const country = countryColumn(
      { id: 'country', title: t('address.country'), width: 130, needed },
      countries,
      words,
    );
    const text = (id: string, title: string, width: number, most: number): GridColumn =>
      textColumn({ id, title, width, needed }, most, words);
    return [
      [
        text('what', t('house.what'), 130, 80),
        text('street', t('address.street'), 150, 120),
        text('postcode', t('address.postcode'), 80, 16),
        text('town', t('address.town'), 110, 80),
        country,
      ],
      [country, text('number', t('house.taxNumber'), 160, 40)],
    ];
  }, [countries, words, t]);
  return (
    <div className={css.elsewhere}>
      <Table {...{ form, onMend }} which="addresses" columns={addresses} />
      <Table {...{ form, onMend }} which="taxIds" columns={taxIds} />
    </div>
  );
}

function Table({
  form,
  which,
  columns,
  onMend,
}: Pick<Props, 'form' | 'onMend'> & { which: Which; columns: readonly GridColumn[] }) {
  const { t } = useSpeech();
  const names = columns.map(({ id }) => id);
  const first = useMemo(
    () => rowsOf(which, form.getValues(which), names),
    // oxlint-disable-next-line react/exhaustive-deps -- only as it was when it was opened
    [],
  );
  const grid = useGrid(first, { columns, most: which === 'addresses' ? 50 : 100 });
  const { rows, wrong } = grid;
  const latest = useLatest({ form, names, onMend, first });
  useEffect(() => {
    const now = latest.current;
    if (rows === now.first) return;
    now.form.setValue(which, partsIn(rows, now.names) as CompanyInput[Which], { shouldDirty: true });
    now.onMend(which, wrong.length > 0);
  }, [rows, wrong, which, latest]);
  return (
    <div className={css.closed}>
      <h2 className={css.legend}>{t(`house.${which}`)}</h2>
      <Grid label={t(`house.${which}`)} grid={grid} words={useGridWords()} />
    </div>
  );
}

const rowsOf = (which: Which, parts: readonly object[], names: readonly string[]): Row[] =>
  parts.map((part, at) => ({
    id: `${which}-${String(at)}`,
    depth: 0,
    cells: names.map((name) => (part as Record<string, string>)[name] ?? ''),
  }));

const partsIn = (rows: readonly Row[], names: readonly string[]): Record<string, string>[] =>
  rows
    .filter((row) => !isBlank(row))
    .map(({ cells }) =>
      Object.fromEntries(
        names.map((name, column) => {
          const cell = cells[column] ?? '';
          return [name, isWrong(cell) ? '' : cell];
        }),
      ),
    );
