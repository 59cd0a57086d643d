/** The demo's catalogue: items, prices, agreements, limits, models. */
import { randomUUID } from 'node:crypto';
import { freshFamily, freshItem } from '../../core/items';
import type { Dated } from '../../core/terms';
import { withLibrary, type ModelDocument, type Texts } from '../../core/model';
import {
  connected,
  type CommissionPlanRow,
  type GrantRow,
  type Kept,
  type PolicyRow,
  type PriceEntryRow,
  type FreightRateRow,
  type TaxRateRow,
} from '../../data';
import { publish } from '../catalogue/models';
import { inDays } from '../kernel/clock';
import { changedEntry, entryOfFile, type EntryFile } from './demo-entries';
import type {
  FamilyFile,
  GrantFile,
  ItemFile,
  LimitFile,
  PriceChangeFile,
  PriceListFile,
  QuantityFile,
  Read,
} from './demo-files';

/** The models and bundles, and the items by which they are listed. */
const heads = {
  ridgeback: 'RIDGEBACK',
  beacon: 'BEACON',
  plumb: 'PLUMB',
  tarn: 'TARN',
  quarryGate: 'QUARRY-GATE',
  farmDriveOver: 'FARM-DRIVE',
};

/** Writes all of it, or nothing. */
export const loadCatalogue = (read: Read): Promise<void> =>
  connected().transaction(async () => {
    await loadItems(read);
    await loadPrices(read);
    await loadTerms(read);
    await loadModels(read);
  });

async function loadItems(read: Read): Promise<void> {
  const { families, items, workCentres } = connected().records;
  const named = await read<FamilyFile[]>('families.json');
  await families.bulkCreate(
    named.map((family, position) => ({ ...freshFamily(family.code), ...family, position, version: 1 })),
  );
  await items.bulkCreate(
    (await read<ItemFile[]>('items.json')).map((item) => ({
      ...freshItem(item.sku, item.family),
      ...item,
      version: 1,
    })),
  );
  await workCentres.bulkCreate(
    (await read<{ code: string; name: Texts; rate: string }[]>('work-centres.json')).map((row) => ({
      ...always(),
      ...row,
    })),
  );
}

async function loadPrices(read: Read): Promise<void> {
  const { priceLists, priceEntries } = connected().records;
  const listed = new Map<string, Record<string, string | EntryFile>>();
  for (const { entries, inside = {}, from, ...list } of await read<PriceListFile[]>('price-lists.json')) {
    listed.set(list.code, entries);
    await priceLists.create({ ...list, validFrom: from, version: 1 });
    for (const [head, own] of [['', entries] as const, ...Object.entries(inside)])
      await priceEntries.bulkCreate(
        Object.entries(own).map(([sku, entry]) => entryRow(list.code, sku, entry, from, head)),
      );
  }
  for (const { priceList, daysAgo, entries } of await read<PriceChangeFile[]>('price-changes.json'))
    await priceEntries.bulkCreate(
      Object.entries(entries).map(([sku, change]) => {
        const changed = changedEntry(sku, change, listed.get(priceList)?.[sku]);
        return entryRow(priceList, sku, changed, inDays(-daysAgo));
      }),
    );
}

/** An entry of a price list; with `inside`, for the parts of that bundle. */
function entryRow(
  priceList: string,
  sku: string,
  file: string | EntryFile,
  validFrom: string,
  inside = '',
): PriceEntryRow {
  const { entry, every } = entryOfFile(file);
  return {
    priceList,
    sku,
    inside,
    entry,
    baseMonths: every?.baseMonths ?? null,
    leastMonths: every?.leastMonths ?? null,
    validFrom,
    validTo: null,
    changeId: null,
  };
}

/** What holds since ever, kept for the first time. */
const always = (): Kept & Dated => ({ id: randomUUID(), version: 1, validFrom: null, validTo: null });

/** Limits, policies, commission, tax, quantity discounts and what everybody is granted. */
async function loadTerms(read: Read): Promise<void> {
  const { grants, quantityDiscounts, limits, taxRates, freightRates, commissionPlans, policies } =
    connected().records;
  await limits.bulkCreate(
    (await read<LimitFile[]>('limits.json')).map(({ limit, ...row }) => ({
      ...always(),
      family: null,
      ...row,
      limitAt: limit,
    })),
  );
  await policies.bulkCreate(
    (await read<Omit<PolicyRow, keyof Kept | keyof Dated | 'follows'>[]>('policies.json')).map((row) => ({
      ...always(),
      follows: null,
      ...row,
    })),
  );
  await commissionPlans.bulkCreate(
    (await read<Omit<CommissionPlanRow, keyof Kept | keyof Dated>[]>('commission-plans.json')).map((row) => ({ ...always(), ...row })),
  );
  await freightRates.bulkCreate(
    (await read<Omit<FreightRateRow, keyof Kept | keyof Dated>[]>('freight.json')).map((row) => ({
      ...always(),
      ...row,
    })),
  );
  await taxRates.bulkCreate(
    (await read<Partial<TaxRateRow>[]>('tax-rates.json')).map((row) => ({
      class: null,
      ...(row as Omit<TaxRateRow, keyof Kept | keyof Dated | 'class'>),
      ...always(),
    })),
  );
  await quantityDiscounts.bulkCreate(
    (await read<QuantityFile[]>('quantity-discounts.json')).map((row) => ({
      ...always(),
      family: null,
      sku: null,
      ...row,
    })),
  );
  await grants.bulkCreate(
    (await read<GrantFile[]>('grants.json'))
      .filter(({ customer }) => customer === undefined)
      .map((file) => grantRow(file, null)),
  );
}

async function loadModels(read: Read): Promise<void> {
  const models = new Map<string, unknown>();
  for (const id of Object.keys(heads)) models.set(id, await read(`models/${id}.json`));
  for (const [id, sku] of Object.entries(heads)) {
    const document = withLibrary(models.get(id), (inner) => models.get(inner)) as ModelDocument;
    const { problems } = await publish(document, sku, null);
    if (problems.length > 0)
      throw new Error(`the demo model ${id} does not compile: ${JSON.stringify(problems)}`);
  }
}

/** A grant as it is kept: to a customer, or to everybody. */
export const grantRow = (
  { customer: _customer, from, to, ...file }: GrantFile,
  customerId: string | null,
): GrantRow => ({
  ...always(),
  kind: 'agreement',
  class: null,
  family: null,
  sku: null,
  rate: null,
  price: null,
  priceList: null,
  fixed: false,
  follows: null,
  ...file,
  customerId,
  validFrom: from ?? null,
  validTo: to ?? null,
});
