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
  type FreightRateRow,
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

/** A version, the day from which it is in force, and whether it was withdrawn. */
export type Release = VersionHead & { inForce: string; withdrawn: boolean };

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
  /** All versions of each model: the one that comes into force last stands first. */
  releases: ReadonlyMap<string, readonly Release[]>;
  /** Of each model those versions that stand for all whose part numbers are written alike, the newest first. */
  schemes: ReadonlyMap<string, readonly VersionHead[]>;
  grants: readonly GrantRow[];
  quantityDiscounts: readonly QuantityDiscountRow[];
  limits: readonly LimitRow[];
  policies: readonly PolicyRow[];
  taxRates: readonly TaxRateRow[];
  freightRates: readonly FreightRateRow[];
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
  const releases = await sequelize.query<Release>(
    `select v.id, v.model_id as "modelId", v.number, v.document -> 'name' as name, v.document -> 'languages' as languages, r.in_force::text as "inForce", r.withdrawn_at is not null as withdrawn from model_versions v join model_releases r on r.version_id = v.id order by v.model_id, r.in_force desc, v.number desc`,
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
  const freightRates = await records.freightRates.findAll({ order: byId, raw });
  const plans = await records.commissionPlans.findAll({ raw });
  const house = new Map((await records.houseParts.findAll({ raw })).map((row) => [row.part, row]));
  // The days of all that follows are those of the house.
  keepZone((house.get('calendar')?.value as { zone?: string } | undefined)?.zone ?? 'Europe/London');
  const people = await records.users.findAll({
    attributes: ['id', 'name', 'role', 'quota', 'asideAt'],
    raw,
  });
  const deputies = await records.deputies.findAll({ order: byId, raw });
  return {
    stamp,
    items: new Map(items.map((item) => [item.sku, item])),
    families,
    priceLists,
    entries: grouped(entries, ({ priceList }) => priceList),
    workCentres,
    models,
    releases: grouped(releases, ({ modelId }) => modelId),
    schemes: grouped(
      [...written].sort((a, b) => b.number - a.number),
      ({ modelId }) => modelId,
    ),
    grants,
    quantityDiscounts,
    limits,
    policies,
    taxRates,
    freightRates,
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

/** By a key, each in its order. */
function grouped<T>(rows: readonly T[], keyOf: (row: T) => string): ReadonlyMap<string, readonly T[]> {
  const found = new Map<string, T[]>();
  for (const row of rows) {
    const own = found.get(keyOf(row));
    if (own) own.push(row);
    else found.set(keyOf(row), [row]);
  }
  return found;
}

/** The version of a model that is in force on a day: the one that came into force last, and was not withdrawn. */
export const inForceOn = ({ releases }: Reference, modelId: string, day: string): VersionHead | undefined =>
  releases.get(modelId)?.find(({ inForce, withdrawn }) => !withdrawn && inForce <= day);

/** A name by whose id it is; empty where there is none. */
export const nameOf = ({ people }: Reference, id: string | null): string => people.get(id ?? '')?.name ?? '';
