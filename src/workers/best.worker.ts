/** Looks for the best build beside the Bench, so that nothing waits for it; whoever has enough ends the worker. */
import { expose } from 'comlink';
import { createEngine, type BestAnswer, type BestProgress, type Decision, type Term } from '../core/engine';
import { exact } from '../core/exact';
import { compileModel } from '../core/model';
import { priceTerms } from '../core/pricing';
import { specialTariff, type BenchView, type SpecialPart } from '../core/quoting';

/** What a build is judged by: the list price, or a calculation. */
export type Measure = 'price' | (string & {});

export interface Wish {
  /** How much each measure counts; more is worse where positive. */
  weights: readonly { measure: Measure; weight: string }[];
  bounds: readonly { measure: Measure; least?: string; most?: string }[];
}

const best = {
  run({ document, context, tariff }: Pick<BenchView, 'document' | 'context' | 'tariff'>, made: { decisions: readonly Decision[]; special: readonly SpecialPart[] }, { weights, bounds }: Wish, tell: (progress: BestProgress) => void): BestAnswer {
    const compiled = compileModel(document);
    if (!compiled.ok) throw new Error('the pinned model does not compile');
    const { model } = compiled;
    const prices = priceTerms(model, specialTariff(tariff, made.special));
    const termsOf = (measure: Measure, factor: string): Term[] =>
      measure === 'price' ? prices.map(({ formula, weight }) => ({ formula, weight: exact(weight).times(factor).toString() })) : [{ formula: measure, weight: factor }];
    const engine = createEngine(model, context);
    return engine.best(
      { decisions: made.decisions },
      {
        minimize: weights.flatMap(({ measure, weight }) => termsOf(measure, weight)),
        bounds: bounds.map(({ measure, ...bound }) => ({ of: termsOf(measure, '1'), ...bound })),
      },
      { progress: tell },
    );
  },
};

export type BestWorker = typeof best;

expose(best);
