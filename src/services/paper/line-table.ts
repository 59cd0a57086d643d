/** The lines of a quote as a file, and part numbers from one. */
import type { Actor } from '../access/actor';
import type { SheetFor } from './files/line-sheet';
import type { SheetProblem } from './files/read-sheet';
import { done, fail, type Result } from '../kernel/failure';
import { askLongPapers, askPapers, readingFile } from '../kernel/papers';
import { writingIn } from '../../core/quotes';
import { seeQuote } from '../quotes/quotes';
import { marketIn } from '../settings/house';
import { invoicedIn } from '../settings/addressed';

const types = new Map([
  ['csv', 'text/csv; charset=utf-8'],
  ['xlsx', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'],
]);

/**
 * For the customer, in the quotation's language, with what the quotation shows; or internal, with all that
 * the person may see.
 */
export async function lineTable(
  actor: Actor,
  id: string,
  format: string,
  to: SheetFor,
  revision?: number,
): Promise<Result<{ name: string; type: string; bytes: Uint8Array }>> {
  const type = types.get(format);
  if (type === undefined) return fail('missing', { code: 'file.format' });
  const seen = await seeQuote(actor, id, revision);
  if (!seen.ok) return seen;
  const { number, revision: of } = seen.value;
  const { customer } = seen.value;
  const language =
    to === 'customer' ? writingIn(customer.language, await marketIn(invoicedIn(customer))) : actor.language;
  return done({
    name: `${number}-R${String(of.number)}${to === 'internal' ? '-internal' : ''}.${format}`,
    type,
    bytes: await askPapers('lines', { quote: seen.value, format: format as 'csv' | 'xlsx', language, to }),
  });
}

/** Part numbers and quantities of a file, as a list to look at. */
export const readTable = (bytes: Uint8Array): Promise<Result<{ text: string }>> =>
  readingFile(async () => {
    const read = await askPapers('table', { bytes });
    return read.is === 'list' ? done({ text: read.text }) : refused(read);
  });

/** The rows of a file as they stand, to look at. */
export const readFileRows = (bytes: Uint8Array): Promise<Result<{ rows: string[][] }>> =>
  readingFile(async () => {
    const read = await askPapers('rows', { bytes });
    return read.is === 'rows' ? done({ rows: read.rows }) : refused(read);
  });

/** The same for a file of many rows, in the thread for what may take long. */
export const readLongRows = (bytes: Uint8Array): Promise<Result<{ rows: string[][] }>> =>
  readingFile(async () => {
    const read = await askLongPapers('rows', { bytes });
    return read.is === 'rows' ? done({ rows: read.rows }) : refused(read);
  });

/** Why a file cannot be read as rows. */
const refused = (problem: SheetProblem): Result<never> =>
  problem.is === 'unreadable'
    ? fail('invalid', { code: 'file.unreadable' })
    : fail('invalid', {
        code: `file.${problem.what}`,
        params: {
          most: problem.what === 'size' ? Math.floor(problem.most / 1024 / 1024) : problem.most,
          row: problem.row ?? 0,
        },
      });
