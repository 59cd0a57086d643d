/** Making: material and operations, with what each comes to, and what all cost and take. */
import { useMemo } from 'react';
import type { DraftView } from '../../../contract';
import type { Part } from '../../../core/modelling';
import { number } from '../../../i18n';
import { useSpeech } from '../../speech';
import { formula, named, nameColumns, shownColumn } from '../grids/list-columns';
import { countingAt, idAt, itemAt, textAt, type PartColumn } from '../grids/part-columns';
import type { Draft } from '../session/useDraft';
import { DocumentFormula } from './DocumentFormula';
import { ListPart } from './ListPart';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

const freshMaterial = (id: string): Part => ({ id, item: '', quantity: '1' });
const freshOperation = (id: string): Part => ({
  id,
  name: named(id),
  centre: '',
  setUp: '0',
  run: '0',
  text: named(id),
});

/** Material and operations, with what each comes to, and what all cost and take. */
export function Making({ draft, view }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const picture = draft.tried?.seen?.picture;
  const { items, centres } = view;
  const needs = useMemo(
    () =>
      new Map((picture?.making.materials ?? []).map((each) => [each.row, number(each.quantity, language)])),
    [picture, language],
  );
  const hours = useMemo(
    () => new Map((picture?.making.operations ?? []).map((each) => [each.row, number(each.hours, language)])),
    [picture, language],
  );
  const materials = useMemo(
    (): PartColumn[] => [
      itemAt('item', { id: 'item', title: t('draft.rows.item'), width: 130 }, items, words),
      shownColumn(t('draft.rows.value'), 90, (id) => needs.get(id) ?? ''),
      formula('quantity', t('draft.rows.quantity'), 190),
      formula('when', t('draft.rows.when'), 240),
      textAt('scrap', { id: 'scrap', title: t('draft.rows.scrap'), width: 80, kind: 'figure' }),
      formula('cut', t('draft.rows.cut'), 110),
      countingAt('counts', { id: 'counts', title: t('draft.rows.counts'), width: 120 }, words),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 120 }, words),
    ],
    [words, t, items, needs],
  );
  const operations = useMemo((): PartColumn[] => {
    const { name, other } = nameColumns(words);
    const known = new Set(centres.map(({ code }) => code));
    return [
      name,
      shownColumn(t('draft.rows.value'), 90, (id) => hours.get(id) ?? ''),
      {
        ...textAt('centre', { id: 'centre', title: t('draft.rows.centre'), width: 110, kind: 'code' }),
        column: {
          id: 'centre',
          title: t('draft.rows.centre'),
          width: 110,
          kind: 'code',
          choices: [...known],
          read: (typed) =>
            known.has(typed.toUpperCase())
              ? { kept: typed.toUpperCase() }
              : { why: t('draft.rows.badKind', { value: typed }) },
        },
      },
      formula('setUp', t('draft.rows.setUp'), 90),
      formula('run', t('draft.rows.run'), 140),
      formula('when', t('draft.rows.when'), 200),
      textAt(`text.${words.language}`, { id: 'text', title: t('draft.rows.text'), width: 260 }),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 120 }, words),
      other,
    ];
  }, [words, t, centres, hours]);
  const sum = picture
    ? t('draft.rows.sum', {
        list: number(picture.price.list, language),
        cost: picture.line.cost === undefined ? t('draft.rows.open') : number(picture.line.cost, language),
        days: picture.leadDays === null ? t('draft.rows.open') : String(picture.leadDays),
      })
    : undefined;
  return (
    <div className={css.making}>
      <ListPart
        draft={draft}
        list="materials"
        title={t('draft.rows.materials')}
        columns={materials}
        fresh={freshMaterial}
        {...(sum === undefined ? {} : { beside: sum })}
      />
      <ListPart
        draft={draft}
        list="operations"
        title={t('draft.rows.operations')}
        columns={operations}
        fresh={freshOperation}
      />
      <div className={css.formulas}>
        <DocumentFormula
          draft={draft}
          name="extraDays"
          label={t('draft.list.extraDays')}
          wanted={{ is: 'number', unit: 'any' }}
        />
      </div>
    </div>
  );
}
