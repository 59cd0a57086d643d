/** The best build as a person wishes for it: by the list price and by calculations. */
import type { BestAnswer, BestOptions, Decision, Engine, Term } from '../engine';
import { exact } from '../exact';
import { priceTerms, type Tariff } from '../pricing';
import type { SpecialPart } from './content';

/** What a build is judged by: the list price, or a calculation. */
export type Measure = 'price' | (string & {});

export interface BestWish {
  /** How much each measure counts; more is worse where positive. */
  weights: readonly { measure: Measure; weight: string }[];
  bounds: readonly { measure: Measure; least?: string; most?: string }[];
}

/** What is made already, and stays. */
export interface MadeOf {
  decisions: readonly Decision[];
  special: readonly SpecialPart[];
}

/** The best complete build that keeps what is made; `tariff` has its special parts in it. */
export function bestFor(engine: Engine, tariff: Tariff, { decisions }: Pick<MadeOf, 'decisions'>, { weights, bounds }: BestWish, options: BestOptions): BestAnswer {
  const prices = priceTerms(engine.model, tariff);
  const termsOf = (measure: Measure, factor: string): Term[] =>
    measure === 'price' ? prices.map(({ formula, weight }) => ({ formula, weight: exact(weight).times(factor).toString() })) : [{ formula: measure, weight: factor }];
  return engine.best(
    { decisions },
    { minimize: weights.flatMap(({ measure, weight }) => termsOf(measure, weight)), bounds: bounds.map(({ measure, ...bound }) => ({ of: termsOf(measure, '1'), ...bound })) },
    options,
  );
}
