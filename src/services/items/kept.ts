/** Items and families as the services hold them: rows of the database as what the core knows, and back. */
import type { FamilyView, ItemRowView, ItemsView } from '../../contract';
import { exact } from '../../core/exact';
import type { Families, Family, Item } from '../../core/items';
import { connected, type FamilyRow, type ItemRow } from '../../data';
import { reference, type Reference } from '../settings/reference-data';

const plain = (amount: string | null): string | null => (amount === null ? null : exact(amount).toString());

/** An item of the database; amounts without zeros that say nothing. */
export function itemOf({ version: _version, ...row }: ItemRow): Item {
  return {
    ...row,
    cost: plain(row.cost) ?? '0',
    mass: plain(row.mass),
    usualQuantity: plain(row.usualQuantity),
    step: plain(row.step),
  };
}

/** A family of the database. */
export const familyOf = ({ code, name, parent, properties }: FamilyRow): Family => ({
  code,
  name,
  parent,
  properties,
});

/** Families by their codes. */
export const familiesIn = ({ families }: Pick<Reference, 'families'>): Families =>
  new Map(families.map((row) => [row.code, familyOf(row)]));

/** All items and families, as whoever keeps them sees them. */
export async function seeItems(): Promise<ItemsView> {
  const known = await reference();
  return { items: [...known.items.values()].map(rowOf), families: familyViews(known) };
}

function rowOf(row: ItemRow): ItemRowView {
  const { sku, family, name, kind, unit, cost, leadDays, mass, active, sold, discountable } = itemOf(row);
  return {
    sku,
    family,
    name,
    kind,
    unit,
    cost,
    leadDays,
    mass,
    active,
    sold,
    discountable,
    version: row.version,
  };
}

/** Families in their order, each with how many items are directly in it. */
export function familyViews({ families, items }: Pick<Reference, 'families' | 'items'>): FamilyView[] {
  const counts = new Map<string, number>();
  for (const { family } of items.values()) counts.set(family, (counts.get(family) ?? 0) + 1);
  return families.map((row) => ({
    ...familyOf(row),
    version: row.version,
    items: counts.get(row.code) ?? 0,
  }));
}

/** One at a time changes items or families, so that none is held against what another is just changing. */
export const holdItems = (): Promise<unknown> =>
  connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', { bind: ['items'] });
