/** When what is quoted could be delivered, and what begins with that. */
import { lastDay } from '../core/pricing';
import { afterWorkingDays, leadDays, shippingDays } from '../core/production';
import { specialFacts, type Covered } from '../core/quoting';
import { connected } from '../data';
import { compiledVersion, versionById } from './models';
import type { QuotedLine } from './quote-pricing';
import { itemFacts } from './tariffs';

/** Working days until all of it can be there. */
export async function slowest(priced: readonly QuotedLine[]): Promise<number> {
  const facts = await itemFacts();
  let days = 0;
  for (const { build, item } of priced) {
    if (!build) days = Math.max(days, item.leadDays);
    else days = Math.max(days, leadDays(compiledVersion(await versionById(build.modelVersionId ?? undefined)), build.outcome.values, specialFacts(facts, build.special)) ?? 0);
  }
  return days;
}

/** What covers each line's goods for a while from delivery on, such as a warranty: on its own, or inside a build. By line. */
export async function coversOf(priced: readonly QuotedLine[], delivered: string): Promise<Map<string, Covered[]>> {
  const rows = await connected().records.items.findAll({ attributes: ['sku', 'name', 'coversMonths'], raw: true });
  const covering = new Map(rows.flatMap(({ sku, name, coversMonths }) => (coversMonths === null ? [] : [[sku, { name, months: coversMonths }]])));
  return new Map(priced.map(({ line, parts }) => {
    const skus = parts ? parts.parts.flatMap(({ item }) => item ?? []) : [line.sku];
    const found = [...new Set(skus)].flatMap((sku): Covered[] => {
      const cover = covering.get(sku);
      return cover ? [{ name: cover.name, from: delivered, to: lastDay({ start: delivered, months: cover.months, days: 0 }) }] : [];
    });
    return [line.id, found];
  }));
}

/** The day on which all of it is delivered where it is ordered on a day. */
export const deliveredWhen = async (ordered: string, priced: readonly QuotedLine[]): Promise<string> => afterWorkingDays(ordered, (await slowest(priced)) + shippingDays);
