/** Parts of a document as tables for spreadsheets, and back: the outline, and the texts in every language. */
import type { Feature, ModelDocument, Parameter } from '../model';
import type { Edit } from './edit';
import { listAt, partAt, valueAt } from './places';
import { headOf, kindName, type OutlineColumn } from './rows';

/** Rows of texts, the first with the heads of the columns. */
export type Sheet = readonly (readonly string[])[];

const columns: readonly OutlineColumn[] = [
  'feature', 'kind', 'option', 'id', 'code', 'item', 'quantity', 'least', 'most', 'unit', 'help',
]; // prettier-ignore

/** Rows and options of the outline, in the language of the reader; `outlineRows` reads it again. */
export function outlineSheet(document: ModelDocument, language: string): Sheet {
  const rows = new Map<string, Feature | Parameter>(
    [...document.features, ...document.parameters].map((row) => [row.id, row]),
  );
  const line = (cells: Partial<Record<OutlineColumn, string>>): string[] =>
    columns.map((column) => cells[column] ?? '');
  const say = (texts: Readonly<Record<string, string>> | undefined): string =>
    texts?.[language] ?? Object.values(texts ?? {})[0] ?? '';
  const lines = document.sections.flatMap((section) =>
    section.rows.flatMap((id): string[][] => {
      const row = rows.get(id);
      if (!row) return [];
      const isFeature = !('type' in row);
      const feature = say(row.name);
      const own = line({
        feature,
        kind: kindName(isFeature ? 'feature' : row.type, language),
        id,
        least: 'least' in row ? String(row.least) : '',
        most: 'most' in row ? String(row.most) : '',
        unit: 'unit' in row ? row.unit : '',
        help: say(row.help),
      });
      return [
        own,
        ...(isFeature ? row.options : []).map((option) =>
          line({
            feature,
            option: say(option.name),
            id: option.id,
            code: option.code ?? '',
            item: option.item ?? '',
            quantity: typeof option.quantity === 'string' ? option.quantity : '',
          }),
        ),
      ];
    }),
  );
  return [columns.map((column) => headOf(column, language)), ...lines];
}

/** A text of a document: the way to the part that has it, and its name there. */
export interface TextAt {
  at: readonly string[];
  name: string;
}

const named = ['name', 'short', 'help', 'reason', 'text'];
const lists = [
  'context', 'sections', 'features', 'parameters', 'calculations', 'rules', 'prices', 'surcharges', 'insidePrices',
  'operations', 'properties', 'drawing.shapes', 'drawing.views', 'drawing.layers',
]; // prettier-ignore

/** Every text of a document, those in which a language is missing first. */
export function textsIn(document: ModelDocument): TextAt[] {
  const ways = lists.flatMap((list) =>
    listAt(document, [list]).flatMap(({ id }) => [
      [list, id],
      ...['options', 'values'].flatMap((inner) =>
        listAt(document, [list, id, inner]).map((each) => [list, id, inner, each.id]),
      ),
    ]),
  );
  const all = [[], ...ways].flatMap((at) => {
    const part = partAt(document, at) ?? {};
    return named.flatMap((name) =>
      typeof part[name] === 'object' && part[name] !== null ? [{ at, name }] : [],
    );
  });
  const lacks = (text: TextAt): boolean =>
    document.languages.some((language) => textIn(document, text, language) === '');
  return [...all.filter(lacks), ...all.filter((text) => !lacks(text))];
}

/** A text in a language; "" where it is missing. */
export function textIn(document: ModelDocument, { at, name }: TextAt, language: string): string {
  const text = valueAt(partAt(document, at) ?? {}, `${name}.${language}`);
  return typeof text === 'string' ? text : '';
}

/** How a text is called by its place: "features/surface/options/steel/name". */
export const textKey = ({ at, name }: TextAt): string => [...at, name].join('/');

/** The texts of a document for a translator: a row each, with its place and a column for each language. */
export function wordsSheet(document: ModelDocument): Sheet {
  const { languages } = document;
  return [
    ['place', ...languages],
    ...textsIn(document).map((text) => [
      textKey(text),
      ...languages.map((language) => textIn(document, text, language)),
    ]),
  ];
}

/** What a translator's table comes to: the edit, and the rows that are of no text of the document, from 0. */
export interface WordsRead {
  edit: Edit;
  changed: number;
  unknown: readonly { row: number; place: string }[];
}

/** Reads texts by their places; columns are found by their languages, an empty cell changes nothing. */
export function readWords(document: ModelDocument, [head = [], ...rows]: Sheet): WordsRead {
  const names = head.map((cell) => cell.trim().toLowerCase());
  const places = new Map(textsIn(document).map((text) => [textKey(text), text]));
  const at = Math.max(0, names.indexOf('place'));
  const unknown: { row: number; place: string }[] = [];
  const edits = rows.flatMap((cells, row): Edit[] => {
    const place = (cells[at] ?? '').trim();
    const text = places.get(place);
    if (!text) {
      if (cells.some((cell) => cell.trim() !== '')) unknown.push({ row: row + 1, place });
      return [];
    }
    return document.languages.flatMap((language): Edit[] => {
      const next = (cells[names.indexOf(language)] ?? '').trim();
      return next === '' || next === textIn(document, text, language)
        ? []
        : [{ do: 'set', at: text.at, name: `${text.name}.${language}`, value: next }];
    });
  });
  return { edit: { do: 'several', edits }, changed: edits.length, unknown };
}
