/**
 * What prices are made from and what everybody is measured by: items, lists, agreements, limits, models,
 * people. It changes seldom, so each server remembers it under a stamp that the database renews with every
 * change of any of it.
 */
import { QueryTypes } from 'sequelize';
import type { Role } from '../../contract';
import type { Deputy } from '../../core/quotes';
import {
  connected,
  type CommissionPlanRow,
  type FamilyRow,
  type GrantRow,
  type HousePartRow,
  type ItemRow,
  type LimitRow,
  type ModelRow,
  type ModelVersionRow,
  type PolicyRow,
  type PriceEntryRow,
  type PriceListRow,
  type QuantityDiscountRow,
  type TaxRateRow,
  type WorkCentreRow,
} from '../../data';
import { keepZone } from '../kernel/clock';
import { requestContext } from '../kernel/request';

/** A published version without its document. */
export type VersionHead = Pick<ModelVersionRow, 'id' | 'modelId' | 'number'> & {
  name: Record<string, string>;
  languages: string[];
};

/** Somebody who signs in, as far as others are told; the quota is net sales in a year, in EUR. */
export interface Person {
  id: string;
  name: string;
  role: Role;
  quota: string | null;
  /** No longer signs in. */
  aside: boolean;
}

/** All that prices and limits are made from, as of one stamp. */
export interface Reference {
  stamp: string;
  items: ReadonlyMap<string, ItemRow>;
  /** In their order. */
  families: readonly FamilyRow[];
  /** In the order of their codes. */
  priceLists: readonly PriceListRow[];
  /** By list, the oldest first. */
  entries: ReadonlyMap<string, readonly PriceEntryRow[]>;
  workCentres: readonly WorkCentreRow[];
  models: readonly ModelRow[];
  /** By id of the model. */
  newest: ReadonlyMap<string, VersionHead>;
  /** Of each model the earlier versions whose part numbers were written otherwise, the newest first. */
  schemes: ReadonlyMap<string, readonly VersionHead[]>;
  grants: readonly GrantRow[];
  quantityDiscounts: readonly QuantityDiscountRow[];
  limits: readonly LimitRow[];
  policies: readonly PolicyRow[];
  taxRates: readonly TaxRateRow[];
  plans: readonly CommissionPlanRow[];
  people: ReadonlyMap<string, Person>;
  /** Who stands in for whom, by their ids. */
  deputies: readonly Deputy[];
  /** What the house says of itself, by its parts. */
  house: ReadonlyMap<string, HousePartRow>;
}

let kept: { stamp: string; reference: Promise<Reference> } | undefined;

async function stampNow(): Promise<string> {
  const known = requestContext()?.stamp;
  if (known !== undefined) return known;
  const [row] = await connected().sequelize.query<{ stamp: string }>('select stamp from reference_stamp', {
    type: QueryTypes.SELECT,
  });
  return row?.stamp ?? '';
}

/** All of it, as it is now. */
export async function reference(): Promise<Reference> {
  const stamp = await stampNow();
  if (kept?.stamp === stamp) {
    try {
      return await kept.reference;
    } catch {
      // Whoever was reading it failed; it is read again here.
    }
  }
  const read = readAll(stamp);
  kept = { stamp, reference: read };
  read.catch(() => {
    if (kept?.reference === read) kept = undefined;
  });
  return read;
}

async function readAll(stamp: string): Promise<Reference> {
  const { records, sequelize } = connected();
  const [raw, byId] = [true, [['id', 'ASC']] as [string, string][]];
  const items = await records.items.findAll({ order: [['sku', 'ASC']], raw });
  const families = await records.families.findAll({ order: [['position', 'ASC']], raw });
  const priceLists = await records.priceLists.findAll({ order: [['code', 'ASC']], raw });
  const entries = await records.priceEntries.findAll({ order: [['validFrom', 'ASC']], raw });
  const workCentres = await records.workCentres.findAll({ order: [['code', 'ASC']], raw });
  const models = await records.models.findAll({ order: byId, raw });
  const newest = await sequelize.query<VersionHead>(
    `select distinct on (model_id) id, model_id as "modelId", number, document -> 'name' as name, document -> 'languages' as languages from model_versions order by model_id, number desc`,
    { type: QueryTypes.SELECT },
  );
  // A number is written by the scheme, and by the codes of the options; the last version with the same of
  // both stands for all of them.
  const written = await sequelize.query<VersionHead>(
    `select distinct on (model_id, scheme) id, model_id as "modelId", number, name, languages from (select *, document -> 'name' as name, document -> 'languages' as languages, md5((document -> 'numbering')::text || (document -> 'features')::text) as scheme from model_versions) as versions order by model_id, scheme, number desc`,
    { type: QueryTypes.SELECT },
  );
  const grants = await records.grants.findAll({
    order: [
      ['validFrom', 'ASC'],
      ['id', 'ASC'],
    ],
    raw,
  });
  const quantityDiscounts = await records.quantityDiscounts.findAll({ order: byId, raw });
  const limits = await records.limits.findAll({ order: byId, raw });
  const policies = await records.policies.findAll({ order: byId, raw });
  const taxRates = await records.taxRates.findAll({ order: byId, raw });
  const plans = await records.commissionPlans.findAll({ raw });
  const house = new Map((await records.houseParts.findAll({ raw })).map((row) => [row.part, row]));
  // The days of all that follows are those of the house.
  keepZone((house.get('calendar')?.value as { zone?: string } | undefined)?.zone ?? 'Europe/London');
  const people = await records.users.findAll({
    attributes: ['id', 'name', 'role', 'quota', 'asideAt'],
    raw,
  });
  const deputies = await records.deputies.findAll({ order: byId, raw });
  const byList = new Map<string, PriceEntryRow[]>();
  for (const entry of entries) {
    const own = byList.get(entry.priceList);
    if (own) own.push(entry);
    else byList.set(entry.priceList, [entry]);
  }
  return {
    stamp,
    items: new Map(items.map((item) => [item.sku, item])),
    families,
    priceLists,
    entries: byList,
    workCentres,
    models,
    newest: new Map(newest.map((head) => [head.modelId, head])),
    schemes: new Map(
      newest.map(({ id, modelId }) => [
        modelId,
        written
          .filter((each) => each.modelId === modelId && each.id !== id)
          .sort((a, b) => b.number - a.number),
      ]),
    ),
    grants,
    quantityDiscounts,
    limits,
    policies,
    taxRates,
    plans,
    people: new Map(
      people.map(({ asideAt, ...person }) => [person.id, { ...person, aside: asideAt !== null }]),
    ),
    deputies: deputies.map(({ userId, deputyId, starts, ends }) => ({
      of: userId,
      deputy: deputyId,
      from: starts,
      to: ends,
    })),
    house,
  };
}

/** A name by whose id it is; empty where there is none. */
export const nameOf = ({ people }: Reference, id: string | null): string => people.get(id ?? '')?.name ?? '';
