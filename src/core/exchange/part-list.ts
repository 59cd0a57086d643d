/** Part numbers with quantities as people paste them: from a mail, a drawing or a spreadsheet. */
import { readWritten, type ExactText } from '../exact';
import { quantityDecimals, unitOf } from '../quotes';

/** A row of a pasted list. */
export interface PartListRow {
  /** Line of the text, from 1. */
  at: number;
  number: string;
  /**
   * 0 where what stands for it is none: negative, too large or too fine, one that could mean two things, or
   * no number at all.
   */
  quantity: number;
  /** How many it could mean. */
  twoWays?: readonly [ExactText, ExactText];
  /** What stands where a quantity is looked for, and cannot be read as one. */
  unread?: string;
  /** What is said to be counted or measured, as items name their unit. */
  unit?: string;
  /** In percent, where the row has one: "3.5%". */
  discount?: string;
}

/** The rows of a list, or that there are too many. */
export type PartListAnswer = { is: 'rows'; rows: PartListRow[] } | { is: 'tooMany'; count: number };

/** Rows that are read at once. */
export const mostRows = 10_000;

/**
 * What is meant as a quantity, whether it can be one or not; a unit may stand right behind it, or "x" before
 * it.
 */
const figure = /^(?:[x×*]\s*)?([-+−]?\d[\d.,]*)\s*([a-zäöü²×*]+2?\.?)?$/i;
const share = /^(\d{1,3}(?:[.,]\d+)?)\s*%$/;
const letter = /\p{L}/u;

/** How many, and of what: undefined where a text says neither. */
function figureIn(text: string): { written: string; unit?: string } | undefined {
  const [, written, behind] = figure.exec(text) ?? [];
  if (written === undefined) return undefined;
  if (behind === undefined) return { written };
  const unit = unitOf(behind);
  return unit === undefined ? undefined : { written, unit };
}

/**
 * Parts a text at the commas that part columns: beside a text with a letter, not within a number such as
 * "2,5".
 */
function atCommas(text: string): string[] {
  const [, before = '', after = ''] =
    /^([^,]*\p{L}[^,]*),(.*)$/u.exec(text) ??
    /^([-+]?\d[\d.,]*),(?=\s*[^\d\s,]*\p{L})(.*)$/u.exec(text) ??
    [];
  return before === '' ? [text] : [before, ...atCommas(after)];
}

/**
 * Reads one row a line: a number and a quantity in whatever order, apart by tab, semicolon, comma or blanks,
 * with or without a unit such as "x", "pcs" or "m"; a number alone is one of it; a share such as "3.5%" is a
 * discount. Further columns, such as a description, are left out where there is a quantity; where there is
 * none, they are told as what could not be read. Lines without anything are skipped.
 */
export function readPartList(text: string, language: string): PartListAnswer {
  const lines = text.split(/\r\n|\r|\n/);
  const filled = lines.filter((line) => line.trim() !== '').length;
  if (filled > mostRows) return { is: 'tooMany', count: filled };
  const rows = lines.flatMap((line, index): PartListRow[] => {
    const columns = /[\t;]/.test(line)
      ? line.split(/[\t;]/)
      : atCommas(line).flatMap((column) => column.trim().split(/\s+/));
    const words = columns
      .map((word) =>
        word
          .trim()
          .replace(/^"(.*)"$/, '$1')
          .trim(),
      )
      .filter((word) => word !== '');
    if (words.length === 0) return [];
    const discount = words.flatMap((word) => share.exec(word)?.[1] ?? [])[0];
    const said = words.filter((word) => !share.test(word));
    const number =
      said.find((word) => letter.test(word) && figureIn(word) === undefined && unitOf(word) === undefined) ??
      said.find((word) => unitOf(word) === undefined) ??
      words[0] ??
      '';
    const others = said.filter((word) => word !== number);
    const found = others.findIndex((word) => figureIn(word) !== undefined);
    const quantity = figureIn(others[found] ?? '');
    const unit = quantity?.unit ?? others.flatMap((word) => unitOf(word) ?? [])[0];
    const rest = others.filter((word) => unitOf(word) === undefined).join(' ');
    return [
      {
        at: index + 1,
        number,
        ...(quantity
          ? quantityOf(quantity.written, language)
          : rest === ''
            ? { quantity: 1 }
            : { quantity: 0, unread: rest }),
        ...(unit === undefined ? {} : { unit }),
        ...(discount === undefined ? {} : { discount: discount.replace(',', '.') }),
      },
    ];
  });
  return { is: 'rows', rows };
}

const readable = new RegExp(`^\\d{1,5}(\\.\\d{1,${String(quantityDecimals)}})?$`);

function quantityOf(written: string, language: string): Pick<PartListRow, 'quantity' | 'twoWays' | 'unread'> {
  const read = readWritten(written, language);
  if (read.is === 'twoWays') return { quantity: 0, twoWays: read.values };
  return read.is === 'number' && readable.test(read.value) && Number(read.value) > 0
    ? { quantity: Number(read.value) }
    : { quantity: 0, unread: written };
}
