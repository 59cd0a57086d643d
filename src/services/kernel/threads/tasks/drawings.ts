/** Drawings of builds as files. */
import { layersIn, sceneOf, viewOf, writeSvg } from '../../../../core/drawing';
import { number, own } from '../../../../i18n';
import { writeDxf } from '../../../builds/files/dxf';
import { writeGlb } from '../../../builds/files/gltf';
import type { Built, Kept } from './kept';

/** Tasks that draw. */
export const drawingTasks = (kept: Kept) => ({
  /** The drawing of a build as a file, in one of its views or in space. */
  drawing: async ({
    version,
    values,
    format,
    view: viewId,
    title,
    language,
  }: Built & { format: 'svg' | 'dxf' | 'glb'; view: string; title: string; language: string }): Promise<{
    view?: string;
    type: string;
    bytes: Uint8Array;
  } | null> => {
    const model = kept.model(version);
    const { drawing } = model.document;
    const view =
      drawing?.views.find((each) => each.id === viewId) ?? (viewId === '' ? drawing?.views[0] : undefined);
    if (!drawing || (format !== 'glb' && !view)) return null;
    const scene = sceneOf(model, values);
    if (!view || format === 'glb')
      return {
        ...(view ? { view: view.id } : {}),
        type: 'model/gltf-binary',
        bytes: await writeGlb(scene, layersIn(model), title),
      };
    const seen = viewOf(scene, view.id, view.from);
    const write = (text: string) => new TextEncoder().encode(text);
    if (format === 'dxf')
      return {
        view: view.id,
        type: 'image/vnd.dxf',
        bytes: write(writeDxf(seen, layersIn(model), language)),
      };
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
  },
});
