/**
 * Runs inside a worker of the timed browser: random free decisions on the large model, each new state timed.
 */
import { createEngine, type Decision } from '../src/core/engine';
import { generatedModel, large, randomFrom } from '../src/core/engine/testing/generated-models';
import { compileModel } from '../src/core/model';

const compiled = compileModel(generatedModel(large));
if (!compiled.ok) throw new Error('the generated model does not compile');
const engine = createEngine(compiled.model, { date: '2026-06-01', values: {} });
const random = randomFrom(7);
const times: number[] = [];
let decisions: Decision[] = [];
let state = engine.state({ decisions });
for (let step = 0; step < 200; step++) {
  const free = compiled.model.document.features.flatMap((feature) =>
    (state.rows[feature.id]?.shown ? (state.rows[feature.id]?.options ?? []) : [])
      .filter((option) => option.standing === 'free' && !option.taken)
      .map((option): Decision =>
        feature.most > 1
          ? { on: `${feature.id}.${option.id}`, value: true }
          : { on: feature.id, value: option.id },
      ),
  );
  const next = free[random(free.length)];
  if (!next) break;
  decisions = [...decisions.filter((each) => each.on !== next.on), next];
  const start = performance.now();
  state = engine.state({ decisions });
  times.push(performance.now() - start);
}
postMessage(times);
