import type { CatalogueItem, CatalogueView } from '../../contract';
import { Exact } from '../../core/exact';
import { isShown, propertiesOf, tellingProperties, usualOf } from '../../core/items';
import { familiesIn } from '../items/kept';
import { connected } from '../../data';
import { may, type Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { inForceOn, reference } from '../settings/reference-data';
import { tariffFor } from '../settings/tariffs';

/** The price list a person reads the catalogue in when no quote says otherwise. */
export async function usualPriceList(actor: Actor): Promise<string> {
  const dealer = actor.dealerId ? await connected().records.customers.findByPk(actor.dealerId) : null;
  return dealer?.priceList ?? (await reference()).priceLists[0]?.code ?? '';
}

/** Items that are sold by themselves, with prices of one list. */
export async function catalogue(actor: Actor, list?: string): Promise<CatalogueView> {
  const known = await reference();
  const { items, families: order, priceLists: lists, models } = known;
  const wanted =
    actor.role === 'dealer' ? await usualPriceList(actor) : (list ?? (await usualPriceList(actor)));
  const head = lists.find((each) => each.code === wanted) ?? lists[0];
  if (!head) throw new Error('no price lists');
  const tariff = await tariffFor(actor, head.code, today());
  const published = new Map(
    models.filter(({ id }) => inForceOn(known, id, today())).map((model) => [model.sku, model.id]),
  );
  const place = new Map(order.map((family) => [family.code, family.position]));
  const families = familiesIn(known);
  const rows = [...items.values()].filter((item) => isShown(item, actor.role));
  // Families in their order; what is configured stands first in its family.
  rows.sort(
    (a, b) =>
      (place.get(a.family) ?? 0) - (place.get(b.family) ?? 0) ||
      Number(b.kind === 'model') - Number(a.kind === 'model'),
  );
  const used = new Set(rows.map((row) => row.family));
  return {
    families: order
      .filter((family) => used.has(family.code))
      .map(({ code, name }) => ({
        code,
        name,
        properties: tellingProperties(
          propertiesOf(families, code),
          rows.filter(({ family }) => family === code),
        ),
      })),
    priceList: { code: head.code, name: head.name, currency: head.currency, decimals: head.decimals },
    items: rows.map(({ sku, family, name, kind, unit, leadDays, mass, ...row }): CatalogueItem => ({
      sku,
      family,
      name,
      kind,
      unit,
      leadDays,
      properties: row.properties,
      usual: usualOf(row),
      ...(tariff.prices[sku] === undefined ? {} : { price: tariff.prices[sku] }),
      ...(mass === null ? {} : { mass: new Exact(mass).toString() }),
      ...(may(actor, 'costs') && tariff.costs?.[sku] !== undefined ? { cost: tariff.costs[sku] } : {}),
      ...(published.has(sku) ? { model: published.get(sku) } : {}),
    })),
  };
}
