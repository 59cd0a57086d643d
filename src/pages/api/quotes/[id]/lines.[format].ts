import type { APIRoute } from 'astro';
import { linesAsCsv, linesAsXlsx } from '../../../../services/files/line-table';
import { seeQuote } from '../../../../services/quotes';
import { answer, browserLanguage, param, refused, revisionOf } from '../../_answer';

const types: Record<string, string> = { csv: 'text/csv; charset=utf-8', xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' };

export const GET: APIRoute = async (context) => {
  const { actor } = context.locals;
  if (!actor) return refused(401, [{ code: 'signIn.needed' }], browserLanguage(context.request));
  const format = param(context, 'format');
  const seen = await seeQuote(actor, param(context, 'id'), revisionOf(context.url));
  if (!seen.ok) return answer(seen, actor.language);
  const type = types[format];
  if (type === undefined) return refused(404, [{ code: 'file.format' }], actor.language);
  const body = format === 'csv' ? linesAsCsv(seen.value, actor.language) : new Uint8Array(await linesAsXlsx(seen.value, actor.language));
  const name = `${seen.value.number}-R${String(seen.value.revision.number)}.${format}`;
  return new Response(body, { headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' } });
};
