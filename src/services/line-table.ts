/** The lines of a quote as a file, and part numbers from one. */
import type { Actor } from './actor';
import { done, fail, type Result } from './failure';
import { askPapers, readingFile } from './papers';
import { seeQuote } from './quotes';

const types = new Map([['csv', 'text/csv; charset=utf-8'], ['xlsx', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet']]);

export async function lineTable(actor: Actor, id: string, format: string, revision?: number): Promise<Result<{ name: string; type: string; bytes: Uint8Array }>> {
  const type = types.get(format);
  if (type === undefined) return fail('missing', { code: 'file.format' });
  const seen = await seeQuote(actor, id, revision);
  if (!seen.ok) return seen;
  const { number, revision: of } = seen.value;
  return done({ name: `${number}-R${String(of.number)}.${format}`, type, bytes: await askPapers('lines', { quote: seen.value, format: format as 'csv' | 'xlsx', language: actor.language }) });
}

/** Part numbers and quantities of a file, as a list to look at. */
export const readTable = (bytes: Uint8Array): Promise<Result<{ text: string }>> => readingFile(async () => {
  const read = await askPapers('table', { bytes });
  if (read.is === 'list') return done({ text: read.text });
  return read.is === 'unreadable' ? fail('invalid', { code: 'file.unreadable' }) : fail('invalid', { code: `file.${read.what}`, params: { most: read.what === 'size' ? Math.floor(read.most / 1024 / 1024) : read.most, row: read.row ?? 0 } });
});
