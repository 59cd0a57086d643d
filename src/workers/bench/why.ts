/** Why something is not to be had, and the ways to it with what each costs. */
import { effectOf, type BenchPicture } from '../../core/builds';
import { differences, type Engine, type Target } from '../../core/engine';
import type { Made, Way, Why } from './types';

/** Causes and ways out for a target, or for the clashes where there is none; `pictured` is as whoever asks may see it. */
export function whyOf(
  engine: Engine,
  pictured: (made: Made) => BenchPicture,
  { decisions, special }: Made,
  target?: Target,
): Why {
  const before = pictured({ decisions, special });
  const ways = engine.waysOut({ decisions }, target).map((way): Way => {
    const after = pictured({ decisions: way.decisions, special });
    const own = new Set(
      [...way.changes.map((change) => change.on), target?.on].map((on) => on?.split('.')[0]),
    );
    return {
      changes: way.changes,
      decisions: way.decisions,
      ...(way.given ? { given: way.given } : {}),
      moved: differences(before.state, after.state).filter((each) => !own.has(each.row)),
      effect: effectOf(before, after),
    };
  });
  const price = (way: Way) => Number(way.effect.list);
  ways.sort(
    (a, b) =>
      Number(a.given !== undefined) - Number(b.given !== undefined) ||
      a.changes.length - b.changes.length ||
      price(a) - price(b),
  );
  const causes = target
    ? engine.reason({ decisions }, target)
    : before.state.clashes.flatMap((clash) => clash.causes);
  return { causes, ways };
}
