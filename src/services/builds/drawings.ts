/** The drawing of a build as a file. */
import type { FileAnswer } from '../../contract';
import type { Actor } from '../access/actor';
import { findBuild } from './find-build';
import { done, fail, type Result } from '../kernel/failure';
import { today } from '../kernel/clock';
import { askEngine } from '../kernel/engines';
import { housePart } from '../settings/house';

const formats = new Map([
  ['svg', 'svg'],
  ['dxf', 'dxf'],
  ['glb', 'glb'],
  ['ifc', 'ifc'],
] as const);

/**
 * `view` is one of the model's, the first where none is said; a file in space has none. `detail` is of IFC: coarse
 * draws each body as a box.
 */
export async function drawingFile(
  actor: Actor,
  id: string,
  format: string,
  viewId: string,
  detail: string,
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
    detail: detail === 'coarse' ? 'coarse' : 'full',
    day: today(),
    author: (await housePart('company')).name,
  });
  if (!drawn) return fail('missing', { code: 'drawing.missing' });
  const flat = form === 'svg' || form === 'dxf';
  const name = `${fileName(title)}${flat && drawn.view ? `-${drawn.view}` : ''}.${form}`;
  return done({
    name,
    type: drawn.type,
    bytes: drawn.bytes,
    headers: { 'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'" },
  });
}

/** A part number as a name of a file. */
export const fileName = (title: string): string => title.replace(/[^A-Za-z0-9-]+/g, '_');
