/** Figures, price and making: lists of formulas, each with its value in the try-out. */
import { useMemo } from 'react';
import type { DraftView } from '../../../contract';
import type { Part } from '../../../core/modelling';
import { number } from '../../../i18n';
import { useSpeech, type InWords } from '../../speech';
import { countingAt, idAt, itemAt, textAt, wholeAt, type PartColumn } from '../grids/part-columns';
import type { Draft } from '../session/useDraft';
import { ListPart } from './ListPart';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

const named = (id: string): Record<string, string> => ({ en: id, de: id });
const both = ({ language }: InWords) =>
  language === 'de' ? (['de', 'en'] as const) : (['en', 'de'] as const);

function nameColumns(words: InWords): PartColumn[] {
  const { t } = words;
  const [own, other] = both(words);
  const title = { en: t('draft.rows.english'), de: t('draft.rows.german') };
  return [
    textAt(`name.${own}`, { id: 'name', title: t('draft.rows.name'), width: 200 }),
    textAt(`name.${other}`, { id: 'name2', title: title[other], width: 150 }),
  ];
}

/** What stands in a column that nobody types in: worked out for the part, by its id. */
const shownColumn = (title: string, width: number, valueOf: (id: string) => string): PartColumn => ({
  column: { id: 'value', title, width, kind: 'figure', fixed: true, read: (typed) => ({ kept: typed }) },
  read: ({ id }) => valueOf(id),
  write: (part) => part,
});

const formula = (name: string, title: string, width = 260): PartColumn =>
  textAt(name, { id: name, title, width, kind: 'code' });

const freshFigure = (id: string): Part => ({ id, name: named(id), type: 'number', formula: '0' });

/** Calculations, each with its value. */
export function Figures({ draft }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const calculated = draft.tried?.seen?.picture.calculated;
  const columns = useMemo((): PartColumn[] => {
    const gives = (['number', 'text', 'yesno'] as const).map((kept) => ({
      kept,
      text: t(`draft.rows.gives.${kept}`),
    }));
    return [
      ...nameColumns(words),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 130 }, words),
      {
        ...textAt('type', { id: 'type', title: t('draft.rows.type'), width: 90 }),
        column: {
          id: 'type',
          title: t('draft.rows.type'),
          width: 90,
          choices: gives.map(({ text }) => text),
          shown: (kept) => gives.find((each) => each.kept === kept)?.text ?? kept,
          read: (typed) => {
            const found = gives.find(({ text }) => text.toLowerCase() === typed.toLowerCase());
            return found ? { kept: found.kept } : { why: t('draft.rows.badKind', { value: typed }) };
          },
        },
      },
      textAt('unit', { id: 'unit', title: t('draft.rows.unit'), width: 70 }),
      wholeAt('decimals', { id: 'decimals', title: t('draft.rows.decimals'), width: 70 }, words),
      formula('formula', t('draft.rows.formula'), 380),
      shownColumn(t('draft.rows.value'), 110, (id) => {
        const value = calculated?.[id];
        if (value === undefined) return '';
        return /^-?\d+(\.\d+)?$/.test(value) ? number(value, language) : value;
      }),
    ];
  }, [words, t, language, calculated]);
  return (
    <div className={css.fill}>
      <ListPart
        draft={draft}
        list="calculations"
        title={t('draft.rows.calculations')}
        columns={columns}
        fresh={freshFigure}
      />
    </div>
  );
}

const freshPrice = (id: string): Part => ({ id, name: named(id), item: '', quantity: '1' });
const freshSurcharge = (id: string): Part => ({ id, name: named(id), of: [], rate: '0', when: 'true' });

/** Price parts and surcharges, and what the try-out lists at. */
export function Prices({ draft, view }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const price = draft.tried?.seen?.picture.price;
  const { items, tariff } = view;
  const amounts = useMemo(
    () => new Map((price?.parts ?? []).map(({ id, amount }) => [id, number(amount, language)])),
    [price, language],
  );
  const parts = useMemo(
    (): PartColumn[] => [
      ...nameColumns(words),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 130 }, words),
      itemAt('item', { id: 'item', title: t('draft.rows.item'), width: 120 }, items, words),
      formula('quantity', t('draft.rows.quantity'), 180),
      formula('when', t('draft.rows.when'), 260),
      {
        ...shownColumn(`${t('draft.try.list')}, ${tariff.currency}`, 130, () => ''),
        read: ({ id, item }) =>
          amounts.get(id) ??
          (typeof item === 'string' && item !== '' && !isPriced(tariff, item)
            ? t('draft.rows.notPriced', { list: tariff.list })
            : ''),
      },
    ],
    [words, t, items, tariff, amounts],
  );
  const surcharges = useMemo(
    (): PartColumn[] => [
      ...nameColumns(words),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 130 }, words),
      {
        ...textAt('of', { id: 'of', title: t('draft.rows.of'), width: 200, kind: 'code' }),
        read: (part) => ((part['of'] as readonly string[] | undefined) ?? []).join(', '),
        write: (part, kept) => ({ ...part, of: kept.split(/[\s,;]+/).filter(Boolean) }),
      },
      formula('rate', t('draft.rows.rate'), 120),
      formula('when', t('draft.rows.when'), 260),
      shownColumn(`${t('draft.try.list')}, ${tariff.currency}`, 130, (id) => amounts.get(id) ?? ''),
    ],
    [words, t, tariff, amounts],
  );
  return (
    <div className={css.fill}>
      <ListPart
        draft={draft}
        list="prices"
        title={t('draft.rows.prices')}
        columns={parts}
        fresh={freshPrice}
      />
      <ListPart
        draft={draft}
        list="surcharges"
        title={t('draft.rows.surcharges')}
        columns={surcharges}
        fresh={freshSurcharge}
      />
    </div>
  );
}

const isPriced = ({ prices, entries }: DraftView['tariff'], sku: string): boolean =>
  prices[sku] !== undefined || entries?.[sku] !== undefined;

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
      idAt({ id: 'id', title: t('draft.rows.id'), width: 120 }, words),
      formula('quantity', t('draft.rows.quantity'), 190),
      shownColumn(t('draft.rows.value'), 100, (id) => needs.get(id) ?? ''),
      formula('when', t('draft.rows.when'), 240),
      textAt('scrap', { id: 'scrap', title: t('draft.rows.scrap'), width: 80, kind: 'figure' }),
      formula('cut', t('draft.rows.cut'), 110),
      countingAt('counts', { id: 'counts', title: t('draft.rows.counts'), width: 120 }, words),
    ],
    [words, t, items, needs],
  );
  const operations = useMemo((): PartColumn[] => {
    const known = new Set(centres.map(({ code }) => code));
    return [
      ...nameColumns(words),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 120 }, words),
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
      shownColumn(t('draft.rows.value'), 90, (id) => hours.get(id) ?? ''),
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
    <div className={css.fill}>
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
    </div>
  );
}
