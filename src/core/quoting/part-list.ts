/** Part numbers with quantities as people paste them: from a mail, a drawing or a spreadsheet. */
import { readWritten, type ExactText } from '../exact';

export interface PartListRow {
  /** Line of the text, from 1. */
  at: number;
  number: string;
  /** 0 where what stands for it is none: negative, with decimals, too large, or one that could mean two things. */
  quantity: number;
  /** How many it could mean. */
  twoWays?: readonly [ExactText, ExactText];
  /** In percent, where the row has one: "3.5%". */
  discount?: string;
}

export type PartListAnswer = { is: 'rows'; rows: PartListRow[] } | { is: 'tooMany'; count: number };

/** Rows that are read at once. */
export const mostRows = 10_000;

/** What is meant as a quantity, whether it can be one or not. */
const figure = /^[-+]?\d[\d.,]*$/;
const share = /^(\d{1,3}(?:[.,]\d+)?)\s*%$/;
const unit = /^(x|×|\*|pc|pcs|st|stk|stück)\.?$/i;

/**
 * Reads one row a line: a number and a quantity in whatever order, apart by tab, semicolon or blanks, with or without "x" or "pc";
 * without a quantity, one; a share such as "3.5%" is a discount. Further columns, such as a description, are left out. Lines without anything are skipped.
 */
export function readPartList(text: string, language: string): PartListAnswer {
  const lines = text.split(/\r\n|\r|\n/);
  const filled = lines.filter((line) => line.trim() !== '').length;
  if (filled > mostRows) return { is: 'tooMany', count: filled };
  const rows = lines.flatMap((line, index): PartListRow[] => {
    const columns = /[\t;]/.test(line) ? line.split(/[\t;]/) : line.split(/\s+/);
    const words = columns.map((word) => word.trim().replace(/^"(.*)"$/, '$1')).filter((word) => word !== '' && !unit.test(word));
    if (words.length === 0) return [];
    // "3x" and "x3" say how many as well.
    const read = words.map((word) => (/^(\d{1,5})[x×*]$/i.exec(word) ?? /^[x×*](\d{1,5})$/i.exec(word))?.[1] ?? word);
    const discount = read.flatMap((word) => share.exec(word)?.[1] ?? [])[0];
    const number = read.find((word) => !figure.test(word) && !share.test(word)) ?? read[0] ?? '';
    const quantity = read.find((word) => figure.test(word) && word !== number);
    return [{ at: index + 1, number, ...quantityOf(quantity, language), ...(discount === undefined ? {} : { discount: discount.replace(',', '.') }) }];
  });
  return { is: 'rows', rows };
}

function quantityOf(written: string | undefined, language: string): Pick<PartListRow, 'quantity' | 'twoWays'> {
  if (written === undefined) return { quantity: 1 };
  const read = readWritten(written, language);
  if (read.is === 'twoWays') return { quantity: 0, twoWays: read.values };
  return { quantity: read.is === 'number' && /^\d{1,5}$/.test(read.value) ? Number(read.value) : 0 };
}
