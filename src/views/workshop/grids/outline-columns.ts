/** The columns of the outline: what of a section, a row or an option stands in each. */
import { withValue, type Part } from '../../../core/modelling';
import type { DraftView } from '../../../contract';
import type { InWords } from '../../speech';
import { countingAt, idAt, itemAt, plainAt, textAt, type PartColumn } from './part-columns';

/** What a line of the outline is. */
export type OutlineKind = 'section' | 'feature' | 'option' | 'number' | 'yesno' | 'choice' | 'text' | 'date';

/** What can stand at the second level. */
export const rowKinds: readonly OutlineKind[] = ['feature', 'number', 'yesno', 'choice', 'text', 'date'];

/** What a part of the outline is, by what is in it. */
export function kindOf(part: Part): OutlineKind {
  if (Array.isArray(part['rows'])) return 'section';
  if (typeof part['type'] === 'string') return part['type'] as OutlineKind;
  return Array.isArray(part['options']) ? 'feature' : 'option';
}

/** A column that only some kinds have. */
const only = (kinds: readonly OutlineKind[], { column, read, write }: PartColumn): PartColumn => ({
  column,
  read: (part) => (kinds.includes(kindOf(part)) ? read(part) : ''),
  write: (part, kept) => (kinds.includes(kindOf(part)) ? write(part, kept) : part),
});

/** Which of a column's forms a part has. */
function byKind(forms: Readonly<Partial<Record<OutlineKind, PartColumn>>>): PartColumn {
  const [first] = Object.values(forms);
  if (!first) throw new Error('a column has a form');
  return {
    column: first.column,
    read: (part) => forms[kindOf(part)]?.read(part) ?? '',
    write: (part, kept) => forms[kindOf(part)]?.write(part, kept) ?? part,
  };
}

/** The columns, in the language of the reader; the names of both languages stand first. */
export function outlineColumns(view: Pick<DraftView, 'items'>, words: InWords): PartColumn[] {
  const { t, language } = words;
  const [own, other] = language === 'de' ? (['de', 'en'] as const) : (['en', 'de'] as const);
  const title = { en: t('draft.rows.english'), de: t('draft.rows.german') };
  const figure = { kind: 'figure', width: 66 } as const;
  const decimal = (name: string) => textAt(name, { id: name, title: '', width: 66 });
  return [
    textAt(`name.${own}`, { id: 'name', title: t('draft.rows.name'), width: 210 }),
    textAt(`name.${other}`, { id: 'name2', title: title[other], width: 150 }),
    whatColumn(words),
    idAt({ id: 'id', title: t('draft.rows.id'), width: 120 }, words),
    only(['option'], textAt('code', { id: 'code', title: t('draft.rows.code'), width: 60, kind: 'code' })),
    bounded('least', t('draft.rows.least'), figure, decimal, words),
    bounded('most', t('draft.rows.most'), figure, decimal, words),
    only(['number'], textAt('step', { id: 'step', title: t('draft.rows.step'), ...figure })),
    only(['number'], textAt('unit', { id: 'unit', title: t('draft.rows.unit'), width: 60 })),
    usualColumn(words),
    only(
      ['option', 'yesno'],
      itemAt('item', { id: 'item', title: t('draft.rows.item'), width: 110 }, view.items, words),
    ),
    quantityColumn(words),
    only(['feature'], shownColumn(words)),
    only(
      ['feature', 'number', 'yesno', 'choice', 'text', 'date'],
      textAt(`help.${own}`, { id: 'help', title: t('draft.rows.help'), width: 260 }),
    ),
    only(
      ['option', 'yesno'],
      countingAt('quantity.counts', { id: 'counts', title: t('draft.rows.counts'), width: 120 }, words),
    ),
  ];
}

/** How the options of a feature stand on the sheet. */
function shownColumn({ t }: InWords): PartColumn {
  const kinds = (['tabs', 'table'] as const).map((kept) => ({ kept, text: t(`draft.rows.shownAs.${kept}`) }));
  const plain = textAt('shown', { id: 'shown', title: t('draft.rows.shown'), width: 90 });
  return {
    ...plain,
    column: {
      ...plain.column,
      choices: kinds.map(({ text }) => text),
      shown: (kept) => kinds.find((each) => each.kept === kept)?.text ?? kept,
      read: (typed) => {
        const found = kinds.find(({ text }) => text.toLowerCase() === typed.toLowerCase());
        return found ? { kept: found.kept } : { why: t('draft.rows.badKind', { value: typed }) };
      },
    },
  };
}

function whatColumn({ t }: InWords): PartColumn {
  const kinds = rowKinds.map((kept) => ({ kept, text: t(`draft.rows.kind.${kept as 'feature'}`) }));
  return {
    column: {
      id: 'what',
      title: t('draft.rows.what'),
      width: 90,
      choices: kinds.map(({ text }) => text),
      shown: (kept) => t(`draft.rows.kind.${kept as 'feature'}`),
      read: (typed) => {
        const found = kinds.find(({ text }) => text.toLowerCase() === typed.toLowerCase());
        return found ? { kept: found.kept } : { why: t('draft.rows.badKind', { value: typed }) };
      },
    },
    read: kindOf,
    // What something is says itself when it is made.
    write: (part) => part,
  };
}

/** Least and most: how many options of a feature, and the ends of a number or day. */
function bounded(
  name: 'least' | 'most',
  title: string,
  head: { kind: 'figure'; width: number },
  decimal: (name: string) => PartColumn,
  { t }: InWords,
): PartColumn {
  const column: PartColumn['column'] = {
    id: name,
    title,
    ...head,
    read: (typed) =>
      /^-?\d+(\.\d+)?$|^\d{4}-\d\d-\d\d$/.test(typed)
        ? { kept: typed }
        : { why: t('draft.rows.badNumber', { value: typed }) },
  };
  const whole: PartColumn = {
    column,
    read: (part) => plainAt(part, name),
    write: (part, kept) => withValue(part, name, kept === '' ? undefined : Number(kept)),
  };
  const text = decimal(name);
  const forms = { feature: whole, number: text, date: text };
  return { ...byKind(name === 'most' ? { ...forms, text: whole } : forms), column };
}

/** What is usual: ids of options, a value, or a formula behind an equals sign. */
function usualColumn({ t }: InWords): PartColumn {
  const head = { id: 'usual', title: t('draft.rows.usual'), width: 110 };
  const plain = textAt('usual', head);
  const list: PartColumn = {
    column: plain.column,
    read: (part) => ((part['usual'] as readonly string[] | undefined) ?? []).join(', '),
    write: (part, kept) =>
      withValue(part, 'usual', kept === '' ? undefined : kept.split(/[\s,;]+/).filter(Boolean)),
  };
  const yesno: PartColumn = {
    column: plain.column,
    read: ({ usual }) => (usual === undefined ? '' : usual === true ? t('draft.try.yes') : t('draft.try.no')),
    write: (part, kept) =>
      withValue(part, 'usual', kept === '' ? undefined : kept.toLowerCase() === t('draft.try.yes')),
  };
  const value: PartColumn = {
    column: plain.column,
    read: ({ usual }) =>
      typeof usual === 'object' && usual !== null
        ? `=${(usual as { formula: string }).formula}`
        : plainText(usual),
    write: (part, kept) =>
      withValue(
        part,
        'usual',
        kept === '' ? undefined : kept.startsWith('=') ? { formula: kept.slice(1).trim() } : kept,
      ),
  };
  return byKind({ feature: list, choice: plain, text: plain, yesno, number: value, date: value });
}

const plainText = (value: unknown): string => (typeof value === 'string' ? value : '');

/** How many: a formula that nobody changes, or what is usual where there is more to say of it. */
function quantityColumn({ t }: InWords): PartColumn {
  return only(['option', 'yesno'], {
    column: {
      id: 'quantity',
      title: t('draft.rows.quantity'),
      width: 110,
      kind: 'code',
      read: (typed) => ({ kept: typed }),
    },
    read: ({ quantity }) =>
      typeof quantity === 'object' && quantity !== null
        ? plainText((quantity as { usual?: unknown }).usual)
        : plainText(quantity),
    write: (part, kept) =>
      typeof part['quantity'] === 'object' && part['quantity'] !== null
        ? withValue(part, 'quantity.usual', kept === '' ? '1' : kept)
        : withValue(part, 'quantity', kept === '' ? undefined : kept),
  });
}
