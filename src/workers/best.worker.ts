/**
 * Looks for the best build beside the Bench, so that nothing waits for it; whoever has enough ends the
 * worker.
 */
import { expose } from 'comlink';
import { createEngine, withAsked, type BestAnswer, type BestProgress } from '../core/engine';
import { compilePublished } from '../core/model';
import { bestFor, specialFacts, specialTariff, type BestWish, type MadeOf } from '../core/builds';
import { type BenchView } from '../contract';

const best = {
  run(
    {
      document,
      context,
      asked,
      tariff,
      facts,
    }: Pick<BenchView, 'document' | 'context' | 'asked' | 'tariff' | 'facts'>,
    made: MadeOf,
    wish: BestWish,
    tell: (progress: BestProgress) => void,
  ): BestAnswer {
    const compiled = compilePublished(document);
    if (!compiled.ok) throw new Error('the pinned model does not compile');
    return bestFor(
      {
        engine: withAsked(createEngine(compiled.model, context), asked),
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
