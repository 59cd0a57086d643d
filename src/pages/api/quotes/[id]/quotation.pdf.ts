import type { APIRoute } from 'astro';
import { quotation } from '../../../../services/quotation';
import { answer, browserLanguage, param, refused, revisionOf } from '../../_answer';

export const GET: APIRoute = async (context) => {
  const { actor } = context.locals;
  if (!actor) return refused(401, [{ code: 'signIn.needed' }], browserLanguage(context.request));
  const result = await quotation(actor, param(context, 'id'), revisionOf(context.url));
  if (!result.ok) return answer(result, actor.language);
  const { name, bytes } = result.value;
  return new Response(new Uint8Array(bytes), { headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' } });
};
