/** The drawing of a build as a file. */
import type { FileAnswer } from '../../contract';
import type { Actor } from '../access/actor';
import { findBuild } from './find-build';
import { done, fail, type Result } from '../kernel/failure';
import { askEngine } from '../kernel/engines';

const formats = new Map([
  ['svg', 'svg'],
  ['dxf', 'dxf'],
  ['glb', 'glb'],
] as const);

/** `view` is one of the model's, the first where none is said; a 3D file has none. */
export async function drawingFile(
  actor: Actor,
  id: string,
  format: string,
  viewId: string,
): Promise<Result<FileAnswer>> {
  const form = formats.get(format as 'svg');
  if (!form) return fail('missing', { code: 'drawing.missing' });
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build } = found.value;
  const title = build.outcome.partNumber;
  const drawn = await askEngine('drawing', {
    version: build.modelVersionId,
    values: build.outcome.values,
    format: form,
    view: viewId,
    title,
    language: actor.language,
  });
  if (!drawn) return fail('missing', { code: 'drawing.missing' });
  const name = `${title.replace(/[^A-Za-z0-9-]+/g, '_')}${drawn.view ? `-${drawn.view}` : ''}.${form}`;
  return done({
    name,
    type: drawn.type,
    bytes: drawn.bytes,
    headers: { 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'" },
  });
}
