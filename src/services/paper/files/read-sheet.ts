/**
 * The first sheet of an XLSX file as rows of text. It is unpacked and read piece by piece, and given up at
 * the first limit that it passes, so that no file costs more than its limits whatever it says of itself.
 * Declared entities are not followed: XML that has any is not read at all.
 */
import { Unzip, UnzipInflate } from 'fflate';
import { SaxesParser } from 'saxes';

/** How much of a workbook is read. */
export interface SheetLimits {
  rows: number;
  columns: number;
  cells: number;
  /** Bytes of all parts that are read, unpacked. */
  unpacked: number;
  /** Characters of a cell; more are left out. */
  text: number;
}

/** Why a workbook is not read. */
export type SheetProblem =
  | { is: 'unreadable' }
  | { is: 'beyond'; what: 'rows' | 'columns' | 'cells' | 'size'; most: number; row?: number };

class Beyond extends Error {
  constructor(readonly problem: SheetProblem) {
    super('beyond a limit');
  }
}

/** Files of a package, each unpacked as it is read. The parts that are wanted are told by name. */
function unpack(
  bytes: Uint8Array,
  wanted: (name: string) => ((piece: string, last: boolean) => void) | undefined,
  budget: { left: number; most: number },
): void {
  const unzip = new Unzip((file) => {
    const take = wanted(file.name.replace(/^\//, ''));
    if (!take) return;
    const decoder = new TextDecoder('utf-8');
    file.ondata = (failed, data, last) => {
      if (failed) throw failed;
      budget.left -= data.byteLength;
      if (budget.left < 0) throw new Beyond({ is: 'beyond', what: 'size', most: budget.most });
      take(decoder.decode(data, { stream: !last }), last);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  // In pieces, so that little is unpacked at a time.
  const piece = 16 * 1024;
  for (let at = 0; at < bytes.byteLength; at += piece)
    unzip.push(bytes.subarray(at, at + piece), at + piece >= bytes.byteLength);
}

interface Handlers {
  open?: (name: string, attributes: Record<string, string>) => void;
  text?: (text: string) => void;
  close?: (name: string) => void;
}

/** A reader of XML that is given in pieces. */
function reader({ open, text, close }: Handlers): (piece: string, last: boolean) => void {
  const parser = new SaxesParser();
  const plain = (name: string): string => name.slice(name.indexOf(':') + 1);
  parser.on('doctype', () => {
    throw new Error('a document type is not read');
  });
  parser.on('error', (problem) => {
    throw problem;
  });
  if (open) parser.on('opentag', (tag) => open(plain(tag.name), tag.attributes));
  if (text) {
    parser.on('text', text);
    parser.on('cdata', text);
  }
  if (close) parser.on('closetag', (tag) => close(plain(tag.name)));
  return (piece, last) => {
    parser.write(piece);
    if (last) parser.close();
  };
}

/** Where the first sheet of a workbook is. */
function firstSheet(bytes: Uint8Array, budget: { left: number; most: number }): string | undefined {
  let id: string | undefined;
  const targets = new Map<string, string>();
  unpack(
    bytes,
    (name) => {
      if (name === 'xl/workbook.xml')
        return reader({
          open: (tag, attributes) => {
            if (tag === 'sheet')
              id ??=
                attributes['r:id'] ?? Object.entries(attributes).find(([key]) => key.endsWith(':id'))?.[1];
          },
        });
      if (name === 'xl/_rels/workbook.xml.rels')
        return reader({
          open: (tag, attributes) => {
            if (tag === 'Relationship') targets.set(attributes.Id ?? '', attributes.Target ?? '');
          },
        });
      return undefined;
    },
    budget,
  );
  const target = id === undefined ? undefined : targets.get(id);
  return target === undefined ? undefined : target.startsWith('/') ? target.slice(1) : `xl/${target}`;
}

/** Texts that cells share, in their order. */
function sharedTexts(
  bytes: Uint8Array,
  limits: SheetLimits,
  budget: { left: number; most: number },
): string[] {
  const texts: string[] = [];
  let [inside, phonetic, text] = [false, false, ''];
  unpack(
    bytes,
    (name) =>
      name !== 'xl/sharedStrings.xml'
        ? undefined
        : reader({
            open: (tag) => {
              if (tag === 'si') text = '';
              else if (tag === 'rPh') phonetic = true;
              else if (tag === 't') inside = true;
            },
            text: (piece) => {
              if (inside && !phonetic && text.length < limits.text) text += piece;
            },
            close: (tag) => {
              if (tag === 't') inside = false;
              else if (tag === 'rPh') phonetic = false;
              else if (tag === 'si' && texts.push(text.slice(0, limits.text)) > limits.cells)
                throw new Beyond({ is: 'beyond', what: 'cells', most: limits.cells });
            },
          }),
    budget,
  );
  return texts;
}

/** Of "AB12" 28; 0 where it names no column. */
export function columnOf(place: string): number {
  let column = 0;
  for (const letter of /^[A-Z]{1,3}/.exec(place)?.[0] ?? '') column = column * 26 + letter.charCodeAt(0) - 64;
  return column;
}

/** The first sheet of a file; its empty rows are left out. */
export function readSheet(
  bytes: Uint8Array,
  limits: SheetLimits,
): { is: 'rows'; rows: string[][] } | SheetProblem {
  try {
    const budget = { left: limits.unpacked, most: limits.unpacked };
    const sheet = firstSheet(bytes, budget);
    if (sheet === undefined) return { is: 'unreadable' };
    const shared = sharedTexts(bytes, limits, budget);
    const rows = rowsOf(bytes, sheet, shared, limits, budget);
    return rows === null ? { is: 'unreadable' } : { is: 'rows', rows };
  } catch (thrown) {
    return thrown instanceof Beyond ? thrown.problem : { is: 'unreadable' };
  }
}

function rowsOf(
  bytes: Uint8Array,
  sheet: string,
  shared: readonly string[],
  limits: SheetLimits,
  budget: { left: number; most: number },
): string[][] | null {
  const rows: string[][] = [];
  let [cells, found, taking] = [0, false, false];
  let row: string[] = [];
  let cell = { column: 0, kind: '', text: '' };
  const finish = (): void => {
    const text =
      cell.kind === 's'
        ? (shared[Number(cell.text)] ?? '')
        : cell.kind === 'b'
          ? cell.text === '1'
            ? 'TRUE'
            : 'FALSE'
          : cell.text;
    if (text.trim() === '') return;
    if (cell.column > limits.columns)
      throw new Beyond({ is: 'beyond', what: 'columns', most: limits.columns, row: rows.length + 1 });
    if (++cells > limits.cells) throw new Beyond({ is: 'beyond', what: 'cells', most: limits.cells });
    while (row.length < cell.column - 1) row.push('');
    row[cell.column - 1] = text.trim();
  };
  unpack(
    bytes,
    (name) =>
      name !== sheet
        ? undefined
        : reader({
            open: (tag, attributes) => {
              found = true;
              if (tag === 'row') row = [];
              else if (tag === 'c')
                cell = {
                  column: columnOf(attributes.r ?? '') || cell.column + 1,
                  kind: attributes.t ?? '',
                  text: '',
                };
              else if (tag === 'v' || tag === 't') taking = true;
            },
            text: (piece) => {
              if (taking && cell.text.length < limits.text) cell.text += piece;
            },
            close: (tag) => {
              if (tag === 'v' || tag === 't') taking = false;
              else if (tag === 'c') finish();
              else if (tag === 'row') {
                cell = { column: 0, kind: '', text: '' };
                if (row.length > 0 && rows.push(row) > limits.rows)
                  throw new Beyond({ is: 'beyond', what: 'rows', most: limits.rows });
              }
            },
          }),
    budget,
  );
  return found ? rows : null;
}
