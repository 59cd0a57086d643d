/** Drawings of builds as files. */
import { layersIn, sceneOf, viewOf, writeSvg, type Scene } from '../../../../core/drawing';
import { number, own } from '../../../../i18n';
import { writeDxf } from '../../../builds/files/dxf';
import { writeGlb } from '../../../builds/files/gltf';
import { writeIfc, type Detail } from '../../../builds/files/ifc';
import type { CompiledModel, DrawingLayer, Texts } from '../../../../core/model';
import type { Built, Kept } from './kept';

/** What a drawing is asked as. */
interface Asked extends Built {
  format: DrawingFormat;
  view: string;
  title: string;
  language: string;
  /** Of IFC. */
  detail?: Detail;
  /** ISO day, and who made it. */
  day?: string;
  author?: string;
}

/** Formats of a drawing; those in space have no view. */
export type DrawingFormat = 'svg' | 'dxf' | 'glb' | 'ifc';

interface DrawnFile {
  view?: string;
  type: string;
  bytes: Uint8Array;
}

const write = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Tasks that draw. */
export const drawingTasks = (kept: Kept) => ({
  /** The views that models are drawn in, each once. */
  viewNames: (versions: readonly string[]): { id: string; name: Texts }[] => {
    const all = versions.flatMap((version) => kept.model(version).document.drawing?.views ?? []);
    return [...new Map(all.map(({ id, name }) => [id, { id, name }])).values()];
  },

  /** The drawing of a build as a file, in one of its views or in space. */
  drawing: (asked: Asked): Promise<DrawnFile | null> => drawn(kept.model(asked.version), asked),

  /** What stands where, to be turned; null where the model has no drawing. */
  scene: ({ version, values }: Built): Scene | null => {
    const model = kept.model(version);
    return model.document.drawing ? sceneOf(model, values) : null;
  },

  /** All files of a drawing by their names: each view, and it in space. */
  drawings: async (asked: Omit<Asked, 'format' | 'view'>): Promise<Record<string, Uint8Array>> => {
    const model = kept.model(asked.version);
    const views = model.document.drawing?.views ?? [];
    const files: Record<string, Uint8Array> = {};
    const add = async (name: string, more: Pick<Asked, 'format'> & Partial<Asked>): Promise<void> => {
      const made = await drawn(model, { ...asked, view: '', ...more });
      if (made) files[name] = made.bytes;
    };
    for (const { id } of views) {
      await add(`${id}.svg`, { format: 'svg', view: id });
      await add(`${id}.dxf`, { format: 'dxf', view: id });
    }
    await add('space.glb', { format: 'glb' });
    await add('space.ifc', { format: 'ifc', detail: 'full' });
    await add('space-coarse.ifc', { format: 'ifc', detail: 'coarse' });
    return files;
  },
});

/** A drawing as a file; null where the model has none, or no such view. */
async function drawn(
  model: CompiledModel,
  { values, format, view: viewId, title, language, detail = 'full', day = '', author = '' }: Asked,
): Promise<DrawnFile | null> {
  const { drawing } = model.document;
  const view =
    drawing?.views.find((each) => each.id === viewId) ?? (viewId === '' ? drawing?.views[0] : undefined);
  const flat = format === 'svg' || format === 'dxf';
  if (!drawing || (flat && !view)) return null;
  const scene = sceneOf(model, values);
  const layers = layersIn(model);
  if (!flat || !view) {
    const of = view ? { view: view.id } : {};
    return format === 'ifc'
      ? {
          ...of,
          type: 'application/x-step',
          bytes: write(
            writeIfc(scene, layers, {
              name: title,
              layerName: layerNames(layers, language),
              day,
              author,
              detail,
            }),
          ),
        }
      : { ...of, type: 'model/gltf-binary', bytes: await writeGlb(scene, layers, title) };
  }
  const seen = viewOf(scene, view.id, view.from);
  if (format === 'dxf')
    return { view: view.id, type: 'image/vnd.dxf', bytes: write(writeDxf(seen, layers, language)) };
  return {
    view: view.id,
    type: 'image/svg+xml',
    bytes: write(
      writeSvg(seen, {
        title: `${title}, ${own(view.name, language)}`,
        language,
        write: (length) => number(String(Math.round(length)), language, 0),
      }),
    ),
  };
}

const layerNames =
  (layers: readonly DrawingLayer[], language: string) =>
  (id: string): string =>
    own(layers.find((layer) => layer.id === id)?.name ?? {}, language) || id;
