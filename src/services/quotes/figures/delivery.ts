/** When what is quoted could be delivered, and what begins with that. */
import { lastDay } from '../../../core/pricing';
import type { Covered } from '../../../contract';
import type { BuildRow } from '../../../data';
import { askEngine, factsKey } from '../../kernel/engines';
import type { QuotedLine } from './quote-pricing';
import { promisedWhen } from '../../settings/house';
import { reference } from '../../settings/reference-data';
import { Recent } from '../../kernel/threads/recent';

/** By a build as it was read, and under which facts of items: how long it takes. */
const leads = new WeakMap<BuildRow, { facts: string; days: number | null }>();

/** Working days until all of it can be there. */
export async function slowest(priced: readonly QuotedLine[]): Promise<number> {
  const facts = await factsKey();
  const builds = priced.flatMap(({ build }) => (build ? [build] : []));
  const asked = builds.filter((build) => leads.get(build)?.facts !== facts);
  if (asked.length > 0) {
    const days = await askEngine('leads', {
      facts,
      builds: asked.map((build) => ({
        version: build.modelVersionId,
        values: build.outcome.values,
        special: build.special,
      })),
    });
    asked.forEach((build, index) => leads.set(build, { facts, days: days[index] ?? null }));
  }
  return Math.max(
    0,
    ...priced.map(({ build, item }) => (build ? (leads.get(build)?.days ?? 0) : item.leadDays)),
  );
}

/** What covers for a while from delivery on, by item. */
const covering = new Recent<ReadonlyMap<string, Covered>>(8);

/**
 * What covers a line's goods for a while from delivery on, such as a warranty: on its own, or inside a build.
 */
export async function coversOf(delivered: string): Promise<(quoted: QuotedLine) => Covered[]> {
  const { stamp, items } = await reference();
  const key = `${stamp} ${delivered}`;
  const covers =
    covering.get(key) ??
    new Map(
      [...items.values()].flatMap(({ sku, name, coversMonths }): [string, Covered][] =>
        coversMonths === null
          ? []
          : [
              [
                sku,
                { name, from: delivered, to: lastDay({ start: delivered, months: coversMonths, days: 0 }) },
              ],
            ],
      ),
    );
  covering.set(key, covers, 1);
  return ({ line, parts }) => {
    const skus = parts ? parts.parts.flatMap(({ item }) => item ?? []) : [line.sku];
    return [...new Set(skus)].flatMap((sku) => covers.get(sku) ?? []);
  };
}

/** The day on which all of it is delivered to a country where it is ordered on a day. */
export const deliveredWhen = async (
  ordered: string,
  priced: readonly QuotedLine[],
  goes: string,
): Promise<string> => promisedWhen(ordered, await slowest(priced), goes);
