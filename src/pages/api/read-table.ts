import type { APIRoute } from 'astro';
import { readTable } from '../../services/files/line-table';
import { browserLanguage, json, refused } from './_answer';

const largest = 4 * 1024 * 1024;

/** Part numbers and quantities of a CSV or XLSX file, as a list to look at; nothing is kept. */
export const POST: APIRoute = async ({ locals: { actor }, request }) => {
  if (!actor) return refused(401, [{ code: 'signIn.needed' }], browserLanguage(request));
  const bytes = new Uint8Array(await request.arrayBuffer());
  if (bytes.byteLength > largest) return refused(413, [{ code: 'request.tooLarge' }], actor.language);
  const read = await readTable(bytes);
  return read.is === 'list' ? json({ text: read.text }) : refused(422, [{ code: 'file.unreadable' }], actor.language);
};
