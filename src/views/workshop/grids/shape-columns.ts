/** Shapes and dimensions of a drawing as rows of grids. */
import { valueAt, withValue, type Part } from '../../../core/modelling';
import type { InWords } from '../../speech';
import { textAt, type PartColumn } from './part-columns';

/** What a shape can be. */
export const shapeKinds = ['box', 'cylinder', 'prism', 'label', 'build'] as const;
type Kind = (typeof shapeKinds)[number];
const axes = ['x', 'y', 'z'] as const;

/** A formula in a list of a fixed length, such as the second coordinate of a point. */
const nthAt = (name: string, at: number, id: string, title: string): PartColumn => ({
  column: { id, title, width: 110, kind: 'code', read: (typed) => ({ kept: typed }) },
  read: (part) => (valueAt(part, name) as readonly string[] | undefined)?.[at] ?? '',
  write: (part, kept) => {
    const list = valueAt(part, name) as readonly string[] | undefined;
    if (!list) return part;
    return withValue(
      part,
      name,
      list.map((each, place) => (place === at ? kept || '0' : each)),
    );
  },
});

/** A column that only some kinds of shapes have. */
const only = (kinds: readonly Kind[], { column, read, write }: PartColumn): PartColumn => ({
  column,
  read: (part) => (kinds.includes(part['kind'] as Kind) ? read(part) : ''),
  write: (part, kept) => (kinds.includes(part['kind'] as Kind) ? write(part, kept) : part),
});

/** Of a few, in words. */
function choiceAt(
  name: string,
  title: string,
  width: number,
  choices: readonly { kept: string; text: string }[],
  { t }: InWords,
): PartColumn {
  return {
    ...textAt(name, { id: name, title, width }),
    column: {
      id: name,
      title,
      width,
      choices: choices.map(({ text }) => text),
      shown: (kept) => choices.find((each) => each.kept === kept)?.text ?? kept,
      read: (typed) => {
        const found = choices.find(({ text, kept }) =>
          [text, kept].some((each) => each.toLowerCase() === typed.toLowerCase()),
        );
        return found ? { kept: found.kept } : { why: t('draft.rows.badKind', { value: typed }) };
      },
    },
  };
}

const zeros = ['0', '0', '0'];
/** What a shape of a kind begins with, beside what every shape has. */
const fresh: Readonly<Record<Kind, Readonly<Record<string, unknown>>>> = {
  box: { at: zeros, size: ['100', '100', '100'] },
  cylinder: { along: 'z', at: zeros, radius: '50', length: '100' },
  prism: {
    along: 'z',
    outline: [
      ['0', '0'],
      ['100', '0'],
      ['0', '100'],
    ],
    from: '0',
    length: '100',
  },
  label: { at: zeros, height: '100', text: {} },
  build: { pick: '', at: zeros },
};

/** A new shape: a box at the corner of everything. */
export const freshShape =
  (layer: string) =>
  (id: string): Part => ({ id, layer, kind: 'box', ...fresh.box });

/** A new dimension, from the corner of everything along x. */
export const freshDimension =
  (view: string) =>
  (id: string): Part => ({ id, view, along: 'x', from: zeros, to: ['100', '0', '0'], offset: '100' });

/** The shape as another kind: where it stands and when stays, what it is of begins anew. */
function asKind(part: Part, kind: Kind): Part {
  const { id, layer, when, repeat, of, views, at } = part;
  const kept = Object.entries({ id, layer, when, repeat, of, views }).filter(
    ([, value]) => value !== undefined,
  );
  const made = fresh[kind];
  return { ...Object.fromEntries(kept), id, kind, ...made, ...('at' in made && at ? { at } : {}) };
}

const outlineText = (part: Part): string =>
  ((part['outline'] as readonly (readonly string[])[] | undefined) ?? [])
    .map((corner) => corner.join(' ; '))
    .join(' | ');

/** A column whose text is several, with a sign between. */
const listAt = (name: string, title: string, width: number): PartColumn => ({
  column: { id: name, title, width, kind: 'code', read: (typed) => ({ kept: typed }) },
  read: (part) => ((part[name] as readonly string[] | undefined) ?? []).join(', '),
  write: (part, kept) =>
    withValue(part, name, kept === '' ? undefined : kept.split(/[\s,;]+/).filter(Boolean)),
});

/** Columns of shapes, in the words of the reader. */
export function shapeColumns(layers: readonly { id: string; text: string }[], words: InWords): PartColumn[] {
  const { t, language } = words;
  const kinds = shapeKinds.map((kept) => ({ kept, text: t(`draft.shape.kind.${kept}`) }));
  const code = { kind: 'code' } as const;
  const formula = (name: string, width = 110) =>
    textAt(name, { id: name, title: t(`draft.shape.${name as 'radius'}`), width, ...code });
  const placed = ['box', 'cylinder', 'label', 'build'] as const;
  const kind = choiceAt('kind', t('draft.rows.what'), 100, kinds, words);
  return [
    textAt('id', { id: 'id', title: t('draft.rows.id'), width: 130, ...code, fixed: true }),
    {
      ...kind,
      write: (part, kept) => (kept === '' || kept === part['kind'] ? part : asKind(part, kept as Kind)),
    },
    choiceAt(
      'layer',
      t('draft.shape.layer'),
      110,
      layers.map(({ id, text }) => ({ kept: id, text })),
      words,
    ),
    formula('when', 160),
    ...axes.map((axis, at) => only(placed, nthAt('at', at, `at${axis}`, axis))),
    ...axes.map((axis, at) => only(['box'], nthAt('size', at, `size${axis}`, t(`draft.shape.size.${axis}`)))),
    only(
      ['cylinder', 'prism'],
      choiceAt(
        'along',
        t('draft.shape.along'),
        70,
        axes.map((kept) => ({ kept, text: kept })),
        words,
      ),
    ),
    only(['prism'], formula('from')),
    only(['cylinder', 'prism'], formula('length')),
    only(['cylinder'], formula('radius')),
    only(['cylinder'], formula('radiusTo')),
    only(['prism'], {
      column: {
        id: 'outline',
        title: t('draft.shape.outline'),
        width: 240,
        ...code,
        read: (typed) => ({ kept: typed }),
      },
      read: outlineText,
      write: (part, kept) =>
        withValue(
          part,
          'outline',
          kept.split('|').map((corner) => {
            const [u = '0', v = '0'] = corner.split(';').map((each) => each.trim() || '0');
            return [u, v];
          }),
        ),
    }),
    only(['label'], textAt(`text.${language}`, { id: 'text', title: t('draft.shape.text'), width: 140 })),
    only(['label'], formula('height')),
    only(['build'], textAt('pick', { id: 'pick', title: t('draft.shape.pick'), width: 130, ...code })),
    formula('repeat', 90),
    textAt('of', { id: 'of', title: t('draft.shape.of'), width: 120, ...code }),
    listAt('views', t('draft.shape.views'), 110),
  ];
}

/** Columns of dimensions. */
export function dimensionColumns(
  views: readonly { id: string; text: string }[],
  words: InWords,
): PartColumn[] {
  const { t } = words;
  const code = { kind: 'code' } as const;
  return [
    textAt('id', { id: 'id', title: t('draft.rows.id'), width: 130, ...code, fixed: true }),
    choiceAt(
      'view',
      t('draft.shape.view'),
      110,
      views.map(({ id, text }) => ({ kept: id, text })),
      words,
    ),
    choiceAt(
      'along',
      t('draft.shape.along'),
      70,
      axes.map((kept) => ({ kept, text: kept })),
      words,
    ),
    ...axes.map((axis, at) => nthAt('from', at, `from${axis}`, `${t('draft.shape.from')} ${axis}`)),
    ...axes.map((axis, at) => nthAt('to', at, `to${axis}`, `${t('draft.shape.to')} ${axis}`)),
    textAt('offset', { id: 'offset', title: t('draft.shape.offset'), width: 90, ...code }),
    textAt('when', { id: 'when', title: t('draft.rows.when'), width: 160, ...code }),
    textAt('of', { id: 'of', title: t('draft.shape.of'), width: 120, ...code }),
  ];
}

const plain = new Set(['id', 'kind', 'layer', 'along', 'text', 'pick', 'of', 'views', 'view', 'outline']);
/** Whether a column of the two holds formulas, and what they give. */
export const drawnFeel = (column: string) =>
  plain.has(column)
    ? undefined
    : column === 'when'
      ? { wanted: { is: 'yesno' } as const }
      : { wanted: { is: 'number', unit: 'any' } as const };
