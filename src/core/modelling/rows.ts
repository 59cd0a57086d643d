/**
 * Rows of a spreadsheet as parts of the outline: a row that names a feature begins one, a row that names an option
 * is one of it. What each becomes, and what is wrong in it, is told before anything is done.
 */
import type { ModelDocument, Texts } from '../model';
import { takenIn, type Edit } from './edit';
import { listAt } from './places';

/** A column of the outline. */
export type OutlineColumn =
  'feature' | 'option' | 'id' | 'kind' | 'code' | 'item' | 'quantity' | 'least' | 'most' | 'unit' | 'help';

/** Heads of columns as people write them, in the languages we speak; those that we write stand first in each. */
const heads: Readonly<Record<OutlineColumn, readonly string[]>> = {
  feature: ['feature', 'merkmal', 'row', 'group', 'zeile', 'gruppe'],
  option: ['option', 'auswahl', 'choice', 'name', 'wahl'],
  id: ['id', 'kennung'],
  kind: ['kind', 'art', 'what', 'was'],
  code: ['code', 'kürzel', 'letters', 'schlüssel'],
  item: ['item', 'artikel', 'sku', 'part', 'number', 'teil', 'nummer'],
  quantity: ['quantity', 'menge', 'qty', 'anzahl'],
  least: ['least', 'mindestens', 'min'],
  most: ['most', 'höchstens', 'max'],
  unit: ['unit', 'einheit'],
  help: ['help', 'hilfe', 'note', 'bemerkung'],
};

/** Why a row cannot be taken as it is. */
export interface RowProblem {
  code:
    | 'rows.noName'
    | 'rows.noFeature'
    | 'rows.codeTaken'
    | 'rows.badCode'
    | 'rows.unknownItem'
    | 'rows.badCount'
    | 'rows.badKind';
  column: OutlineColumn;
  params: Readonly<Record<string, string>>;
}

/** What becomes of a row, from 0 as it was pasted; a head, or an empty row, becomes nothing. */
export interface OutlineRow {
  row: number;
  becomes: {
    is: 'feature' | 'option' | 'row';
    /** Something new, or another value of what is there. */
    how: 'new' | 'changed';
    of: string;
    id: string;
    name: string;
  } | null;
  problems: readonly RowProblem[];
}

/** All rows, and the one edit that makes of them what is without problems. */
export interface OutlineRows {
  rows: readonly OutlineRow[];
  edit: Edit;
}

/** Where rows are pasted, and what they may name. */
export interface Pasting {
  /** The language that they are written in; other languages get the same words until somebody translates them. */
  language: string;
  /** The feature that options go into as long as no row names another. */
  into?: string;
  /** The section that new rows go into; the last where it is not said. */
  section?: string;
  /** Whether there is an item of this number. */
  isItem: (sku: string) => boolean;
}

/** Reads rows as parts; nothing is done yet. */
export function outlineRows(
  document: ModelDocument,
  rows: readonly (readonly string[])[],
  pasting: Pasting,
): OutlineRows {
  return new Reader(document, pasting).read(rows);
}

const plain = (text: string): string => text.trim().replace(/\s+/g, ' ');

type Cells = (column: OutlineColumn) => string;
/** A part that is not there yet, with the options that go into it. */
interface Fresh {
  id: string;
  part: Record<string, unknown>;
  options: Record<string, unknown>[];
}

type RowKind = 'number' | 'yesno' | 'choice' | 'text' | 'date';
/** What kinds of rows are called; a feature's needs no name. */
const kindNames: Readonly<Record<'feature' | RowKind, readonly string[]>> = {
  feature: ['feature', 'merkmal'],
  number: ['number', 'zahl'],
  yesno: ['yes or no', 'ja oder nein', 'yesno'],
  choice: ['choice', 'auswahl'],
  text: ['text'],
  date: ['day', 'tag', 'date', 'datum'],
};

/** What a kind is called in a sheet, in a language. */
export const kindName = (kind: keyof typeof kindNames, language: string): string =>
  kindNames[kind][language === 'de' && kindNames[kind].length > 1 ? 1 : 0] ?? kind;

/** The head of a column in a language. */
export const headOf = (column: OutlineColumn, language: string): string =>
  heads[column][language === 'de' ? 1 : 0] ?? column;

class Reader {
  private readonly features: Fresh[] = [];
  private readonly parameters: Record<string, unknown>[] = [];
  private readonly added = new Map<string, Record<string, unknown>[]>();
  private readonly used = new Set<string>();
  private readonly changes: Edit[] = [];
  private readonly counts = new Map<string, number>();
  private readonly begun = new Map<string, Fresh>();
  private current: { id: string; codes: Map<string, string>; ids: Set<string> } | null = null;

  constructor(
    private readonly document: ModelDocument,
    private readonly pasting: Pasting,
  ) {
    if (pasting.into !== undefined) this.goTo(pasting.into);
  }

  read(rows: readonly (readonly string[])[]): OutlineRows {
    const [first = []] = rows;
    const named = columnsBy(first);
    const columns =
      named ??
      (this.current
        ? (['option', 'code', 'item'] as const)
        : (['feature', 'option', 'code', 'item'] as const));
    const told = rows.map((cells, row): OutlineRow => {
      const cell = (column: OutlineColumn): string => plain(cells[columns.indexOf(column)] ?? '');
      const isHead = named !== null && row === 0;
      return isHead || cells.every((each) => plain(each) === '')
        ? { row, becomes: null, problems: [] }
        : this.row(row, cell);
    });
    return { rows: told, edit: { do: 'several', edits: this.edits() } };
  }

  private row(row: number, cell: Cells): OutlineRow {
    const [feature, option] = [cell('feature'), cell('option')];
    const problems: RowProblem[] = [];
    let becomes: OutlineRow['becomes'] = null;
    if (feature !== '') {
      const kind = this.kindIn(cell('kind'), problems);
      becomes =
        kind === 'feature'
          ? this.feature(feature, cell, problems)
          : this.parameter(feature, kind, cell, problems);
    }
    if (option !== '') becomes = this.option(option, cell, problems) ?? becomes;
    else if (feature === '') problems.push({ code: 'rows.noName', column: 'option', params: {} });
    return { row, becomes, problems };
  }

  private kindIn(text: string, problems: RowProblem[]): keyof typeof kindNames {
    if (text === '') return 'feature';
    const found = (Object.keys(kindNames) as (keyof typeof kindNames)[]).find((kind) =>
      kindNames[kind].includes(text.toLowerCase()),
    );
    if (!found) problems.push({ code: 'rows.badKind', column: 'kind', params: { text } });
    return found ?? 'feature';
  }

  /** A row that names a feature which is there already goes on with that one. */
  private feature(name: string, cell: Cells, problems: RowProblem[]): OutlineRow['becomes'] {
    // Beside an option its id is meant.
    const own = cell('option') === '';
    const known = this.known(this.document.features, name, own ? cell : (_) => '');
    const begun = this.begun.get(name.toLowerCase());
    if (known || begun) {
      this.goTo((known ?? begun)?.id ?? '');
      const changed =
        known !== undefined &&
        own &&
        [
          this.change(['features', known.id], 'least', known.least, this.whole(cell, 'least', problems)),
          this.change(['features', known.id], 'most', known.most, this.whole(cell, 'most', problems)),
        ].some(Boolean);
      return known && changed ? { is: 'feature', how: 'changed', of: '', id: known.id, name } : null;
    }
    const id = this.rowId(name, own ? cell : (_) => '');
    const help = cell('help');
    const part = {
      id,
      name: this.texts(name),
      least: this.whole(cell, 'least', problems) ?? 1,
      most: this.whole(cell, 'most', problems) ?? 1,
      ...(help !== '' && own ? { help: this.texts(help) } : {}),
    };
    const made: Fresh = { id, part, options: [] };
    this.features.push(made);
    this.begun.set(name.toLowerCase(), made);
    this.current = { id, codes: new Map(), ids: new Set() };
    return { is: 'feature', how: 'new', of: '', id, name };
  }

  private parameter(name: string, type: RowKind, cell: Cells, problems: RowProblem[]): OutlineRow['becomes'] {
    const known = this.known(this.document.parameters, name, cell);
    const [unit, help] = [cell('unit'), cell('help')];
    const bound = (column: 'least' | 'most'): string | undefined =>
      type === 'number' || type === 'date' ? this.decimal(cell, column, type, problems) : undefined;
    if (known) {
      const at = ['parameters', known.id];
      const changed = (['least', 'most'] as const).map((column) => {
        const next = bound(column);
        const before = (known as unknown as Record<string, unknown>)[column];
        return this.change(at, column, before, next);
      });
      return changed.some(Boolean) ? { is: 'row', how: 'changed', of: '', id: known.id, name } : null;
    }
    const id = this.rowId(name, cell);
    const [least, most] = [bound('least'), bound('most')];
    this.parameters.push({
      id,
      name: this.texts(name),
      type,
      ...(help === '' ? {} : { help: this.texts(help) }),
      ...(type === 'number'
        ? { unit, least: least ?? '0', most: most ?? '100', step: '1', usual: least ?? '0' }
        : {}),
      ...(type === 'date'
        ? { least: least ?? '2000-01-01', most: most ?? '2099-12-31', optional: true }
        : {}),
      ...(type === 'text' ? { most: this.whole(cell, 'most', problems) ?? 40, optional: true } : {}),
      ...(type === 'yesno' ? { usual: false } : {}),
      ...(type === 'choice' ? { options: [] } : {}),
    });
    this.current = null;
    return { is: 'row', how: 'new', of: '', id, name };
  }

  private option(name: string, cell: Cells, problems: RowProblem[]): OutlineRow['becomes'] {
    const { current } = this;
    if (!current) {
      problems.push({ code: 'rows.noFeature', column: 'feature', params: { name } });
      return null;
    }
    const [code, item, quantity] = [cell('code'), cell('item'), cell('quantity')];
    const there = this.document.features.find(({ id }) => id === current.id)?.options ?? [];
    const known = this.known(there, name, cell);
    if (code !== '' && !/^[A-Z0-9]{1,8}$/i.test(code))
      problems.push({ code: 'rows.badCode', column: 'code', params: { code } });
    else if (code !== '' && (current.codes.get(code) ?? known?.id) !== known?.id)
      problems.push({ code: 'rows.codeTaken', column: 'code', params: { code } });
    if (item !== '' && !this.pasting.isItem(item))
      problems.push({ code: 'rows.unknownItem', column: 'item', params: { item } });
    const wrong = (column: OutlineColumn): boolean => problems.some((each) => each.column === column);
    const kept = {
      ...(code !== '' && !wrong('code') ? { code } : {}),
      ...(item !== '' && !wrong('item') ? { item } : {}),
      // A quantity that has more than its formula is not for a sheet to change.
      ...(quantity === '' || quantity === '1' || typeof known?.quantity === 'object' ? {} : { quantity }),
    };
    if (kept.code !== undefined) current.codes.set(kept.code, known?.id ?? '');
    if (known) {
      const at = ['features', current.id, 'options', known.id];
      const changed = Object.entries(kept).map(([column, value]) =>
        this.change(at, column, (known as unknown as Record<string, unknown>)[column], value),
      );
      return changed.some(Boolean)
        ? { is: 'option', how: 'changed', of: current.id, id: known.id, name }
        : null;
    }
    const id = this.idIn(cell, name, (each) => current.ids.has(each));
    current.ids.add(id);
    const part = { id, name: this.texts(name), ...kept };
    const own = this.features.find((each) => each.id === current.id);
    if (own) own.options.push(part);
    else this.added.set(current.id, [...(this.added.get(current.id) ?? []), part]);
    return { is: 'option', how: 'new', of: current.id, id, name };
  }

  /** The part that a row means: by its id where there is one, else by its name in any language. */
  private known<T extends { id: string; name: Texts }>(
    parts: readonly T[],
    name: string,
    cell: Cells,
  ): T | undefined {
    const id = cell('id');
    return (
      parts.find((each) => id !== '' && each.id === id) ??
      parts.find((each) =>
        Object.values(each.name).some((text) => plain(text).toLowerCase() === name.toLowerCase()),
      )
    );
  }

  /** Sets a value where it is another; whether it is. */
  private change(at: readonly string[], name: string, before: unknown, value: unknown): boolean {
    if (value === undefined || value === before) return false;
    this.changes.push({ do: 'set', at, name, value });
    return true;
  }

  private goTo(id: string): void {
    // What a sheet says again in each row is where one is already.
    if (this.current?.id === id) return;
    const own = this.features.find((each) => each.id === id);
    const options = [
      ...listAt(this.document, ['features', id, 'options']),
      ...(own?.options ?? []),
      ...(this.added.get(id) ?? []),
    ] as { id: string; code?: string }[];
    this.current = {
      id,
      codes: new Map(options.flatMap((each) => (each.code === undefined ? [] : [[each.code, each.id]]))),
      ids: new Set(options.map((each) => each.id)),
    };
  }

  private whole(cell: Cells, column: 'least' | 'most', problems: RowProblem[]): number | undefined {
    const text = cell(column);
    if (text === '') return undefined;
    if (/^\d{1,4}$/.test(text)) return Number(text);
    problems.push({ code: 'rows.badCount', column, params: { text } });
    return undefined;
  }

  private decimal(
    cell: Cells,
    column: 'least' | 'most',
    type: 'number' | 'date',
    problems: RowProblem[],
  ): string | undefined {
    const text = cell(column).replace(/^(-?\d+),(\d+)$/, '$1.$2');
    if (text === '') return undefined;
    if ((type === 'number' ? /^-?\d{1,12}(\.\d{1,9})?$/ : /^\d{4}-\d\d-\d\d$/).test(text)) return text;
    problems.push({ code: 'rows.badCount', column, params: { text } });
    return undefined;
  }

  private texts(text: string): Record<string, string> {
    return Object.fromEntries(this.document.languages.map((language) => [language, text]));
  }

  private rowId(name: string, cell: Cells): string {
    const id = this.idIn(
      cell,
      name,
      (each) => takenIn(this.document, ['features'], each) || this.used.has(each),
    );
    this.used.add(id);
    return id;
  }

  private idIn(cell: Cells, name: string, isTaken: (id: string) => boolean): string {
    const given = cell('id');
    return /^[a-z][A-Za-z0-9]{0,39}$/.test(given) && !isTaken(given) ? given : this.fresh(name, isTaken);
  }

  /** An id of the words of a name that nothing has: "Tear plate, 6 mm" is tearPlate6Mm. */
  private fresh(name: string, isTaken: (id: string) => boolean): string {
    const words = name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .replace(/ß/g, 'ss')
      .replace(/[^A-Za-z0-9]+/g, ' ')
      .trim()
      .split(' ')
      .map((word, at) =>
        at === 0 ? word.toLowerCase() : word.charAt(0).toUpperCase() + word.slice(1).toLowerCase(),
      );
    const base = words
      .join('')
      .replace(/^(?=\d|$)/, 'o')
      .slice(0, 34);
    // Of many that are called alike each goes on where the last one was.
    for (let count = this.counts.get(base) ?? 1; ; count += 1) {
      const id = count === 1 ? base : `${base}${String(count)}`;
      if (isTaken(id)) continue;
      this.counts.set(base, count);
      return id;
    }
  }

  private edits(): Edit[] {
    const shown = [...this.features.map(({ id }) => id), ...this.parameters.map(({ id }) => String(id))];
    return [
      ...this.changes,
      ...this.features.map(({ part, options }): Edit => ({
        do: 'add',
        to: ['features'],
        part: { ...part, options } as unknown as { id: string },
      })),
      ...this.parameters.map((part): Edit => ({
        do: 'add',
        to: ['parameters'],
        part: part as { id: string },
      })),
      ...[...this.added].flatMap(([id, options]) =>
        options.map((part): Edit => ({
          do: 'add',
          to: ['features', id, 'options'],
          part: part as { id: string },
        })),
      ),
      ...this.shownIn(shown),
    ];
  }

  /** New rows stand at the end of their section, in the order in which they came. */
  private shownIn(rows: readonly string[]): Edit[] {
    const { sections } = this.document;
    const section = sections.find(({ id }) => id === this.pasting.section) ?? sections.at(-1);
    if (!section || rows.length === 0) return [];
    const fresh = new Set(rows);
    const order = [...this.used].filter((id) => fresh.has(id));
    return [{ do: 'set', at: ['sections', section.id], name: 'rows', value: [...section.rows, ...order] }];
  }
}

/** The columns by the heads of a first row; null where it is none, since it names fewer than two of them. */
function columnsBy(cells: readonly string[]): (OutlineColumn | null)[] | null {
  const found = cells.map(
    (cell) =>
      (Object.keys(heads) as OutlineColumn[]).find((column) =>
        heads[column].includes(plain(cell).toLowerCase()),
      ) ?? null,
  );
  return new Set(found.filter((each) => each !== null)).size >= 2 ? found : null;
}
