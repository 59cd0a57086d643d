/**
 * Rows of a spreadsheet as parts of the outline: a row that names a feature begins one, a row that names an option
 * is one of it. What each becomes, and what is wrong in it, is told before anything is done.
 */
import type { ModelDocument } from '../model';
import { takenIn, type Edit } from './edit';
import { listAt } from './places';

/** A column of the outline. */
export type OutlineColumn = 'feature' | 'option' | 'code' | 'item' | 'quantity' | 'least' | 'most' | 'help';

/** Heads of columns as people write them, in the languages we speak. */
const heads: Readonly<Record<OutlineColumn, readonly string[]>> = {
  feature: ['feature', 'row', 'group', 'merkmal', 'zeile', 'gruppe'],
  option: ['option', 'choice', 'name', 'auswahl', 'wahl'],
  code: ['code', 'letters', 'kürzel', 'schlüssel'],
  item: ['item', 'sku', 'part', 'number', 'artikel', 'teil', 'nummer'],
  quantity: ['quantity', 'qty', 'menge', 'anzahl'],
  least: ['least', 'min', 'mindestens'],
  most: ['most', 'max', 'höchstens'],
  help: ['help', 'note', 'hilfe', 'bemerkung'],
};

/** Why a row cannot be taken as it is. */
export interface RowProblem {
  code:
    | 'rows.noName'
    | 'rows.noFeature'
    | 'rows.codeTaken'
    | 'rows.badCode'
    | 'rows.unknownItem'
    | 'rows.badCount';
  column: OutlineColumn;
  params: Readonly<Record<string, string>>;
}

/** What becomes of a row, from 0 as it was pasted; a head, or an empty row, becomes nothing. */
export interface OutlineRow {
  row: number;
  becomes: { is: 'feature' | 'option'; of: string; id: string; name: string } | null;
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

class Reader {
  private readonly features: {
    id: string;
    part: Record<string, unknown>;
    options: Record<string, unknown>[];
  }[] = [];
  private readonly added = new Map<string, Record<string, unknown>[]>();
  private readonly used = new Set<string>();
  private current: { id: string; fresh: boolean; codes: Set<string>; ids: Set<string> } | null = null;

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

  private row(row: number, cell: (column: OutlineColumn) => string): OutlineRow {
    const [feature, option] = [cell('feature'), cell('option')];
    const problems: RowProblem[] = [];
    let becomes: OutlineRow['becomes'] = null;
    if (feature !== '') becomes = this.feature(feature, cell, problems);
    if (option !== '') becomes = this.option(option, cell, problems) ?? becomes;
    else if (feature === '') problems.push({ code: 'rows.noName', column: 'option', params: {} });
    return { row, becomes, problems };
  }

  /** A row that names a feature which is there already goes on with that one. */
  private feature(
    name: string,
    cell: (column: OutlineColumn) => string,
    problems: RowProblem[],
  ): OutlineRow['becomes'] {
    const known = this.document.features.find((each) =>
      Object.values(each.name).some((text) => text.toLowerCase() === name.toLowerCase()),
    );
    const begun = this.features.find(({ part }) => part.title === name.toLowerCase());
    if (known || begun) {
      this.goTo((known ?? begun)?.id ?? '');
      return null;
    }
    const id = this.fresh(name, (each) => takenIn(this.document, ['features'], each) || this.used.has(each));
    this.used.add(id);
    const help = cell('help');
    const part = {
      title: name.toLowerCase(),
      id,
      name: this.texts(name),
      least: this.count(cell('least'), 'least', 1, problems),
      most: this.count(cell('most'), 'most', 1, problems),
      ...(help !== '' && cell('option') === '' ? { help: this.texts(help) } : {}),
    };
    this.features.push({ id, part, options: [] });
    this.current = { id, fresh: true, codes: new Set(), ids: new Set() };
    return { is: 'feature', of: '', id, name };
  }

  private option(
    name: string,
    cell: (column: OutlineColumn) => string,
    problems: RowProblem[],
  ): OutlineRow['becomes'] {
    const { current } = this;
    if (!current) {
      problems.push({ code: 'rows.noFeature', column: 'feature', params: { name } });
      return null;
    }
    const [code, item, quantity] = [cell('code'), cell('item'), cell('quantity')];
    if (code !== '' && !/^[A-Z0-9]{1,12}$/i.test(code))
      problems.push({ code: 'rows.badCode', column: 'code', params: { code } });
    else if (code !== '' && current.codes.has(code))
      problems.push({ code: 'rows.codeTaken', column: 'code', params: { code } });
    if (item !== '' && !this.pasting.isItem(item))
      problems.push({ code: 'rows.unknownItem', column: 'item', params: { item } });
    const wrong = (column: OutlineColumn): boolean => problems.some((each) => each.column === column);
    const id = this.fresh(name, (each) => current.ids.has(each));
    current.ids.add(id);
    if (code !== '' && !wrong('code')) current.codes.add(code);
    const part = {
      id,
      ...(code !== '' && !wrong('code') ? { code } : {}),
      name: this.texts(name),
      ...(item !== '' && !wrong('item') ? { item } : {}),
      ...(quantity === '' || quantity === '1' ? {} : { quantity }),
    };
    const own = this.features.find((each) => each.id === current.id);
    if (own) own.options.push(part);
    else this.added.set(current.id, [...(this.added.get(current.id) ?? []), part]);
    return { is: 'option', of: current.id, id, name };
  }

  private goTo(id: string): void {
    const own = this.features.find((each) => each.id === id);
    const options = [
      ...listAt(this.document, ['features', id, 'options']),
      ...(own?.options ?? []),
      ...(this.added.get(id) ?? []),
    ] as { id: string; code?: string }[];
    this.current = {
      id,
      fresh: own !== undefined,
      codes: new Set(options.flatMap(({ code }) => code ?? [])),
      ids: new Set(options.map((each) => each.id)),
    };
  }

  private count(text: string, column: 'least' | 'most', usual: number, problems: RowProblem[]): number {
    if (text === '') return usual;
    if (/^\d{1,4}$/.test(text)) return Number(text);
    problems.push({ code: 'rows.badCount', column, params: { text } });
    return usual;
  }

  private texts(text: string): Record<string, string> {
    return Object.fromEntries(this.document.languages.map((language) => [language, text]));
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
    for (let count = 1; ; count += 1) {
      const id = count === 1 ? base : `${base}${String(count)}`;
      if (!isTaken(id)) return id;
    }
  }

  private edits(): Edit[] {
    return [
      ...this.features.map(({ part: { title: _, ...part }, options }): Edit => ({
        do: 'add',
        to: ['features'],
        part: { ...part, options } as unknown as { id: string },
      })),
      ...[...this.added].flatMap(([id, options]) =>
        options.map((part): Edit => ({
          do: 'add',
          to: ['features', id, 'options'],
          part: part as { id: string },
        })),
      ),
    ];
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
