/** Layers of a drawing with those of the builds that are drawn inside it. */
import type { CompiledModel, DrawingLayer } from '../model';

/** The layers that anything of a model's drawing can be on: its own first, each once by its id. */
export function layersIn(model: CompiledModel): DrawingLayer[] {
  const found = new Map<string, DrawingLayer>();
  const seen = new Set<CompiledModel>();
  const collect = (each: CompiledModel): void => {
    if (seen.has(each)) return;
    seen.add(each);
    for (const layer of each.document.drawing?.layers ?? [])
      if (!found.has(layer.id)) found.set(layer.id, layer);
    for (const { builds } of each.picks) for (const build of builds) collect(build.model);
  };
  collect(model);
  return [...found.values()];
}
