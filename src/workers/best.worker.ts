/**
 * Looks for the best build beside the Bench, so that nothing waits for it; whoever has enough ends the
 * worker.
 */
import { expose } from 'comlink';
import { createEngine, type BestAnswer, type BestProgress } from '../core/engine';
import { compilePublished } from '../core/model';
import { bestFor, specialFacts, specialTariff, type BestWish, type MadeOf } from '../core/builds';
import { type BenchView } from '../contract';

const best = {
  run(
    { document, context, tariff, facts }: Pick<BenchView, 'document' | 'context' | 'tariff' | 'facts'>,
    made: MadeOf,
    wish: BestWish,
    tell: (progress: BestProgress) => void,
  ): BestAnswer {
    const compiled = compilePublished(document);
    if (!compiled.ok) throw new Error('the pinned model does not compile');
    return bestFor(
      {
        engine: createEngine(compiled.model, context),
        tariff: specialTariff(tariff, made.special),
        items: specialFacts(facts, made.special),
      },
      made,
      wish,
      { progress: tell },
    );
  },
};

/** What a page can ask of it. */
export type BestWorker = typeof best;

expose(best);
