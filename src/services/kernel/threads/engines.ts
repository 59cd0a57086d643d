/**
 * A thread of engines: keeps models, engines and lists warm between jobs, and lets go of what was not used
 * for longest.
 */
import { createEngine, usualLimits, type Context, type Engine } from '../../../core/engine';
import { compilePublished, movedOn, type CompiledModel, type ModelDocument } from '../../../core/model';
import type { Tariff } from '../../../core/pricing';
import { engineTasks, type Facts, type Kept } from './tasks';
import { Recent } from './recent';
import { serveTasks, Wanting } from './thread';

/** By the length of their documents as text, so that one very large model does not count like a small one. */
const models = new Recent<CompiledModel>(40_000_000);
/** An engine grows with its model, too. */
const engines = new Recent<{ engine: Engine; stop: { asked: () => boolean } }>(60_000_000);
const lists = new Recent<Tariff>(12);
const facts = new Recent<Facts>(3);
const sizes = new Map<string, number>();

const wanted = <T>(kept: Recent<T>, kind: string, key: string): T => {
  const found = kept.get(key);
  if (found === undefined) throw new Wanting([{ kind, key }]);
  return found;
};

const kept: Kept = {
  model: (version) => wanted(models, 'model', version),
  engine: (version, context: Context, stopped) => {
    const key = `${version} ${JSON.stringify(context)}`;
    const warm = engines.get(key);
    if (warm) {
      warm.stop.asked = stopped;
      return warm.engine;
    }
    const stop = { asked: stopped };
    const engine = createEngine(kept.model(version), context, { ...usualLimits, stop: () => stop.asked() });
    engines.set(key, { engine, stop }, sizes.get(version) ?? 1);
    return engine;
  },
  tariff: (key) => wanted(lists, 'tariff', key),
  facts: (key) => wanted(facts, 'facts', key),
};

serveTasks(engineTasks(kept), ({ kind, key }, value) => {
  if (kind === 'tariff') lists.set(key, value as Tariff, 1);
  else if (kind === 'facts') facts.set(key, value as Facts, 1);
  else {
    // What was published in an earlier format is kept as it was.
    const result = compilePublished(movedOn(JSON.parse(value as string)) as ModelDocument);
    if (!result.ok)
      throw new Error(`published model does not compile: ${JSON.stringify(result.problems.slice(0, 3))}`);
    sizes.set(key, (value as string).length);
    models.set(key, result.model, (value as string).length);
  }
});
