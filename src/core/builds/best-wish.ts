/**
 * The best build as a person wishes for it: by the list price, the lead time and calculations, with what the
 * person has seen left as it is.
 */
import type { BestAnswer, BestOptions, Decision, Engine, State, Term } from '../engine';
import { exact } from '../exact';
import { priceTerms, type Tariff } from '../pricing';
import { leadFormula } from '../production';
import type { SpecialPart } from './content';

/** What a build is judged by: the list price, the lead time, or a calculation. */
export type Measure = 'price' | 'lead' | (string & {});

/** What is wanted of the best build: weights, bounds, and rows that may change for it. */
export interface BestWish {
  /** How much each measure counts; more is worse where positive. */
  weights: readonly { measure: Measure; weight: string }[];
  bounds: readonly { measure: Measure; least?: string; most?: string }[];
  /** Rows whose value nobody decided and that may become another; all others stay as they are seen. */
  free: readonly string[];
}

/** What is made already, and stays. */
export interface MadeOf {
  decisions: readonly Decision[];
  special: readonly SpecialPart[];
}

/** What prices and lead times follow from; `tariff` and `items` have the special parts in them. */
export interface BestMeans {
  engine: Engine;
  tariff: Tariff;
  items: Readonly<Record<string, { leadDays: number }>>;
}

/** Rows that have a value that nobody decided: by a default or an advice. */
export const seenRows = ({ rows }: State): string[] =>
  Object.values(rows)
    .filter(
      ({ shown, source, value, options = [] }) =>
        shown && value !== undefined && (isSeen(source) || options.some((option) => isSeen(option.source))),
    )
    .map(({ id }) => id);

const isSeen = (source: State['rows'][string]['source']): boolean =>
  source === 'usual' || source === 'advised';

/** What is seen by default, as decisions, but for the rows set free. */
function keptAsSeen({ rows }: State, free: ReadonlySet<string>): Decision[] {
  return Object.values(rows).flatMap((row): Decision[] => {
    const { id, shown, source, value, options } = row;
    if (!shown || value === undefined || free.has(id)) return [];
    if (Array.isArray(value))
      return (options ?? [])
        .filter((option) => isSeen(option.source))
        .map((option) => ({ on: `${id}.${option.id}`, value: option.taken }));
    return isSeen(source) ? [{ on: id, value: value as Decision['value'] }] : [];
  });
}

/**
 * The best complete build that keeps what is decided and, but for the rows set free, what is there by
 * default. Its decisions are those made, and no more of others than it takes to come to it, so that what is
 * usual stays usual.
 */
export function bestFor(
  { engine, tariff, items }: BestMeans,
  { decisions }: Pick<MadeOf, 'decisions'>,
  { weights, bounds, free }: BestWish,
  options: BestOptions,
): BestAnswer {
  const now = engine.state({ decisions });
  const own = new Set(decisions.map(({ on }) => on));
  const kept = keptAsSeen(now, new Set(free)).filter(({ on }) => !own.has(on));
  const prices = priceTerms(engine.model, tariff);
  const termsOf = (measure: Measure, factor: string): Term[] => {
    if (measure === 'price')
      return prices.map(({ formula, weight }) => ({
        formula,
        weight: exact(weight).times(factor).toString(),
      }));
    return [{ formula: measure === 'lead' ? leadFormula(engine.model, items) : measure, weight: factor }];
  };
  const answer = engine.best(
    { decisions: [...decisions, ...kept] },
    {
      minimize: weights.flatMap(({ measure, weight }) => termsOf(measure, weight)),
      bounds: bounds.map(({ measure, ...bound }) => ({ of: termsOf(measure, '1'), ...bound })),
    },
    options,
  );
  return answer.is === 'found'
    ? { ...answer, decisions: fewestDecisions(engine, decisions, answer.decisions) }
    : answer;
}

/**
 * Of the decisions of a whole build those made, and others only where it would not come to that build by
 * itself.
 */
export function fewestDecisions(
  engine: Engine,
  made: readonly Decision[],
  whole: readonly Decision[],
): Decision[] {
  const valueOf = (state: State, on: string): unknown => {
    const [id = '', option] = on.split('.');
    const { value, shown } = state.rows[id] ?? {};
    return !shown || value === undefined
      ? undefined
      : option === undefined
        ? value
        : (value as readonly string[]).includes(option);
  };
  const found = [...made];
  const own = new Set(made.map(({ on }) => on));
  let state = engine.state({ decisions: found });
  for (let rounds = 0; rounds < whole.length; rounds++) {
    const apart = whole.filter(({ on, value }) => !own.has(on) && valueOf(state, on) !== value);
    if (apart.length === 0) return found;
    // One that is open or otherwise now is decided, and what follows from it is looked at again.
    const next = apart[0] as Decision;
    found.push(next);
    own.add(next.on);
    state = engine.state({ decisions: found });
  }
  return [...whole];
}
