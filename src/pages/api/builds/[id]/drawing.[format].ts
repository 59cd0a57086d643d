import type { APIRoute } from 'astro';
import { drawingFile, type DrawingFormat } from '../../../../services/drawings';
import { answer, browserLanguage, param, refused } from '../../_answer';

const formats: Readonly<Record<string, DrawingFormat>> = { svg: 'svg', dxf: 'dxf', glb: 'glb' };

export const GET: APIRoute = async (context) => {
  const { actor } = context.locals;
  if (!actor) return refused(401, [{ code: 'signIn.needed' }], browserLanguage(context.request));
  const format = formats[param(context, 'format')];
  if (!format) return refused(404, [{ code: 'drawing.missing' }], actor.language);
  const result = await drawingFile(actor, param(context, 'id'), format, context.url.searchParams.get('view') ?? '');
  if (!result.ok) return answer(result, actor.language);
  const { name, type, bytes } = result.value;
  return new Response(new Uint8Array(bytes), { headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store', 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'" } });
};
