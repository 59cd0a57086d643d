/** The drawing of a build as a file. */
import { sceneOf, viewOf, writeSvg } from '../core/drawing';
import { own, number } from '../i18n';
import type { Actor } from './actor';
import { findBuild } from './find-build';
import { done, fail, type Result } from './failure';
import { writeDxf } from './files/dxf';
import { writeGlb } from './files/gltf';
import { compiledVersion, versionById } from './models';

export type DrawingFormat = 'svg' | 'dxf' | 'glb';

export interface DrawingFile {
  name: string;
  type: string;
  bytes: Uint8Array;
}

/** `view` is one of the model's; a 3D file has none. */
export async function drawingFile(actor: Actor, id: string, format: DrawingFormat, viewId: string): Promise<Result<DrawingFile>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build } = found.value;
  const model = compiledVersion(await versionById(build.modelVersionId));
  const { drawing } = model.document;
  const view = drawing?.views.find((each) => each.id === viewId);
  if (!drawing || (format !== 'glb' && !view)) return fail('missing', { code: 'drawing.missing' });
  const scene = sceneOf(model, build.outcome.values);
  const title = build.outcome.partNumber;
  const name = `${title.replace(/[^A-Za-z0-9-]+/g, '_')}${view ? `-${view.id}` : ''}.${format}`;
  if (!view || format === 'glb') return done({ name, type: 'model/gltf-binary', bytes: await writeGlb(scene, drawing.layers, title) });
  const seen = viewOf(scene, view.id, view.from);
  if (format === 'dxf') return done({ name, type: 'image/vnd.dxf', bytes: new TextEncoder().encode(writeDxf(seen, drawing.layers, actor.language)) });
  const svg = writeSvg(seen, { title: `${title}, ${own(view.name, actor.language)}`, language: actor.language, write: (length) => number(String(Math.round(length)), actor.language, 0) });
  return done({ name, type: 'image/svg+xml', bytes: new TextEncoder().encode(svg) });
}
