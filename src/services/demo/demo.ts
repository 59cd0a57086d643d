/** Loads the demo scenario from its files, through the same services that people use. */
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { subDays } from 'date-fns';
import { withLibrary, type ModelDocument, type Texts } from '../../core/model';
import type { Term } from '../../core/pricing';
import type { QuoteView, TypedInput, Role } from '../../contract';
import {
  connected,
  type CommissionPlanRow,
  type CustomerClass,
  type GrantRow,
  type ItemRow,
  type LimitRow,
  type PolicyRow,
  type PriceEntryRow,
  type QuantityDiscountRow,
  type TaxRateRow,
  type UserRow,
} from '../../data';
import type { Actor } from '../access/actor';
import { beginBuild } from '../builds/begin';
import { saveContent } from '../builds/save';
import type { Result } from '../kernel/failure';
import { changedEntry, entryOfFile, type ChangeFile, type EntryFile } from './demo-entries';
import { publish } from '../catalogue/models';
import { acceptQuote } from '../orders/orders';
import { addByNumber, putOnQuote } from '../quotes/lines/quote-builds';
import { inDays } from '../kernel/clock';
import { changeLine, changeLines } from '../quotes/lines/lines';
import { changeWhole, openQuote, seeQuote } from '../quotes/quotes';
import { reviseQuote, sendQuote } from '../quotes/history/revisions';
import { actorOf, hashPassword } from '../access/sessions';
import { askSignOff } from '../quotes/sign-off/sign-offs';

/** The password of all of the demo's people. */
export const demoPassword = 'harrowmoor';

interface CustomerFile {
  number: string;
  name: string;
  class: CustomerClass;
  priceList: string;
  language: string;
  region: string;
  dealer: string | null;
  addresses: {
    kind: 'invoice' | 'delivery';
    street: string;
    town: string;
    postcode: string;
    country: string;
  }[];
  contacts: { name: string; email: string; task?: string }[];
  paymentDays?: number;
}
type ItemFile = Omit<ItemRow, 'mass' | 'discountable' | 'taxClass' | 'coversMonths'> &
  Partial<Pick<ItemRow, 'discountable' | 'taxClass' | 'coversMonths'>> & { mass?: string };
type QuantityFile = Pick<QuantityDiscountRow, 'name' | 'by' | 'levels'> &
  Partial<Pick<QuantityDiscountRow, 'family' | 'sku'>>;
type LimitFile = Omit<LimitRow, 'id' | 'limitAt' | 'family'> & { family?: string; limit: string };
type GrantFile = Partial<Omit<GrantRow, 'id' | 'customerId' | 'validFrom' | 'validTo'>> &
  Pick<GrantRow, 'name'> & { customer?: string; from?: string; to?: string };

const entryOf = (
  file: string | EntryFile,
): Omit<PriceEntryRow, 'priceList' | 'sku' | 'inside' | 'validFrom' | 'validTo'> => {
  const { entry, every } = entryOfFile(file);
  return { entry, baseMonths: every?.baseMonths ?? null, leastMonths: every?.leastMonths ?? null };
};
const grantRow = (
  { customer: _customer, from, to, ...file }: GrantFile,
  customerId: string | null,
): GrantRow => ({
  id: randomUUID(),
  kind: 'agreement',
  class: null,
  family: null,
  sku: null,
  rate: null,
  price: null,
  priceList: null,
  fixed: false,
  ...file,
  customerId,
  validFrom: from ?? null,
  validTo: to ?? null,
});

interface LineFile {
  group?: string;
  model?: string;
  item?: string;
  term?: Term;
  price?: string;
  hand?: TypedInput;
  locked?: boolean;
  optional?: boolean;
  decisions?: { on: string; value: string | boolean | null }[];
  passed?: { rule: string; reason: string }[];
  quantity: number;
}
/** `daysAgo`: opened then, at the prices of then; `send`: sent, and then revised as `then` says. */
interface QuoteFile {
  daysAgo?: number;
  resale?: string;
  send?: boolean;
  then?: { line: number; quantity?: number; hand?: TypedInput }[];
  by: string;
  ask?: string;
  customer: string;
  title: string;
  lines: LineFile[];
  whole?: TypedInput;
  accept: boolean;
}
interface UserFile {
  email: string;
  name: string;
  role: Role;
  language: string;
  dealer: string | null;
  quota?: string;
}

/**
 * Loads everything if there are no users yet. Gives the sign-ins; `loaded` tells whether anything was done.
 */
export async function loadDemo(
  folder: string,
): Promise<{ loaded: boolean; people: { email: string; role: Role; name: string }[] }> {
  const { users } = connected().records;
  const present = await users.findAll({
    order: [
      ['role', 'ASC'],
      ['email', 'ASC'],
    ],
  });
  if (present.length > 0) return { loaded: false, people: present };
  const read = async <T>(name: string): Promise<T> =>
    JSON.parse(await readFile(join(folder, name), 'utf8')) as T;
  await loadCatalogue(read);
  const people = await loadPeople(read);
  for (const quote of await read<QuoteFile[]>('quotes.json'))
    await loadQuote(quote, people.get(quote.by) as Actor);
  return { loaded: true, people: [...people.values()] };
}

/** The models and bundles, and the items by which they are listed. */
const heads = {
  ridgeback: 'RIDGEBACK',
  beacon: 'BEACON',
  plumb: 'PLUMB',
  tarn: 'TARN',
  quarryGate: 'QUARRY-GATE',
  farmDriveOver: 'FARM-DRIVE',
};

type Read = <T>(name: string) => Promise<T>;

async function loadCatalogue(read: Read): Promise<void> {
  await connected().transaction(async () => {
    const {
      families,
      items,
      priceLists,
      priceEntries,
      workCentres,
      grants,
      quantityDiscounts,
      limits,
      taxRates,
      commissionPlans,
      policies,
    } = connected().records;
    await families.bulkCreate(
      (await read<{ code: string; name: Texts }[]>('families.json')).map((family, position) => ({
        ...family,
        position,
      })),
    );
    await items.bulkCreate(
      (await read<ItemFile[]>('items.json')).map((item) => ({
        discountable: true,
        taxClass: 'standard',
        coversMonths: null,
        ...item,
        mass: item.mass ?? null,
      })),
    );
    const listed = new Map<string, Record<string, string | EntryFile>>();
    for (const { entries, inside = {}, from, ...list } of await read<
      {
        inside?: Record<string, Record<string, string>>;
        code: string;
        name: Texts;
        currency: string;
        decimals: number;
        costRate: string;
        from: string;
        entries: Record<string, string | EntryFile>;
      }[]
    >('price-lists.json')) {
      listed.set(list.code, entries);
      await priceLists.create({ ...list, validFrom: from });
      await priceEntries.bulkCreate(
        Object.entries(entries).map(([sku, entry]) => ({
          priceList: list.code,
          sku,
          inside: '',
          ...entryOf(entry),
          validFrom: from,
          validTo: null,
        })),
      );
      for (const [head, own] of Object.entries(inside))
        await priceEntries.bulkCreate(
          Object.entries(own).map(([sku, price]) => ({
            priceList: list.code,
            sku,
            inside: head,
            ...entryOf(price),
            validFrom: from,
            validTo: null,
          })),
        );
    }
    // Prices rise some days before the demo is loaded, whenever that is.
    for (const { priceList, daysAgo, entries } of await read<
      { priceList: string; daysAgo: number; entries: Record<string, ChangeFile> }[]
    >('price-changes.json')) {
      await priceEntries.bulkCreate(
        Object.entries(entries).map(([sku, change]) => ({
          priceList,
          sku,
          inside: '',
          ...entryOf(changedEntry(sku, change, listed.get(priceList)?.[sku])),
          validFrom: inDays(-daysAgo),
          validTo: null,
        })),
      );
    }
    await workCentres.bulkCreate(
      await read<{ code: string; name: Texts; rate: string }[]>('work-centres.json'),
    );
    await limits.bulkCreate(
      (await read<LimitFile[]>('limits.json')).map(({ limit, ...row }) => ({
        id: randomUUID(),
        family: null,
        ...row,
        limitAt: limit,
      })),
    );
    await policies.bulkCreate(
      (await read<Omit<PolicyRow, 'id'>[]>('policies.json')).map((row) => ({ id: randomUUID(), ...row })),
    );
    await commissionPlans.bulkCreate(await read<CommissionPlanRow[]>('commission-plans.json'));
    await taxRates.bulkCreate(
      (await read<Partial<TaxRateRow>[]>('tax-rates.json')).map((row) => ({
        class: null,
        ...(row as Omit<TaxRateRow, 'id' | 'class'>),
        id: randomUUID(),
      })),
    );
    await quantityDiscounts.bulkCreate(
      (await read<QuantityFile[]>('quantity-discounts.json')).map((row) => ({
        id: randomUUID(),
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
    const models = new Map<string, unknown>();
    for (const id of Object.keys(heads)) models.set(id, await read(`models/${id}.json`));
    for (const [id, sku] of Object.entries(heads)) {
      const { problems } = await publish(
        withLibrary(models.get(id), (inner) => models.get(inner)) as ModelDocument,
        sku,
        null,
      );
      if (problems.length > 0)
        throw new Error(`the demo model ${id} does not compile: ${JSON.stringify(problems)}`);
    }
  });
}

async function loadPeople(read: Read): Promise<Map<string, Actor>> {
  const { customers, addresses, contacts, users } = connected().records;
  const people = new Map<string, Actor>();
  await connected().transaction(async () => {
    const ids = new Map<string, string>();
    const files = await read<CustomerFile[]>('customers.json');
    for (const file of files) ids.set(file.number, randomUUID());
    // Dealers first: their own customers refer to them.
    for (const { addresses: places, contacts: persons, dealer, ...file } of [...files].sort(
      (a, b) => Number(a.dealer !== null) - Number(b.dealer !== null),
    )) {
      const id = ids.get(file.number) as string;
      await customers.create({
        id,
        paymentDays: 30,
        ...file,
        dealerId: dealer ? (ids.get(dealer) as string) : null,
      });
      await contacts.bulkCreate(
        persons.map((person, position) => ({
          id: randomUUID(),
          customerId: id,
          task: '',
          ...person,
          position,
        })),
      );
      await addresses.bulkCreate(
        places.map((place, position) => ({ id: randomUUID(), customerId: id, ...place, position })),
      );
    }
    const own = (await read<GrantFile[]>('grants.json')).filter(({ customer }) => customer !== undefined);
    await connected().records.grants.bulkCreate(
      own.map((file) => grantRow(file, ids.get(file.customer ?? '') ?? null)),
    );
    const passwordHash = await hashPassword(demoPassword);
    for (const { dealer, quota, ...file } of await read<UserFile[]>('users.json')) {
      const row: UserRow = {
        id: randomUUID(),
        ...file,
        passwordHash,
        dealerId: dealer ? (ids.get(dealer) as string) : null,
        quota: quota ?? null,
        preferences: {},
      };
      await users.create(row);
      people.set(row.email, actorOf(row));
    }
  });
  return people;
}

async function loadQuote(file: QuoteFile, actor: Actor): Promise<void> {
  const customer = await connected().records.customers.findOne({ where: { number: file.customer } });
  let quote = must(await openQuote(actor, { customerId: customer?.id ?? '', title: file.title }));
  for (const line of file.lines) {
    if (line.model) {
      const build = must(await beginBuild(actor, { quoteId: quote.id, modelId: line.model }));
      must(
        await saveContent(actor, build.id, {
          version: 1,
          decisions: line.decisions ?? [],
          passed: line.passed ?? [],
          special: [],
        }),
      );
      quote = must(await putOnQuote(actor, build.id, { version: quote.version, quantity: line.quantity }));
    } else {
      quote = must(
        await addByNumber(actor, quote.id, {
          version: quote.version,
          sku: line.item ?? '',
          quantity: line.quantity,
        }),
      );
    }
    const last = quote.lines[quote.lines.length - 1];
    const { hand, locked, optional, term, price } = line;
    const typed = {
      ...(hand ? { hand } : {}),
      ...(locked ? { locked } : {}),
      ...(optional ? { optional } : {}),
      ...(term ? { term } : {}),
      ...(price ? { price } : {}),
    };
    if (last && line.group !== undefined)
      quote = must(
        await changeLines(actor, quote.id, { version: quote.version, lines: [last.id], group: line.group }),
      );
    if (last && Object.keys(typed).length > 0)
      quote = must(await changeLine(actor, quote.id, last.id, { version: quote.version, ...typed }));
  }
  if (file.resale)
    quote = must(await changeWhole(actor, quote.id, { version: quote.version, resale: file.resale }));
  if (file.whole)
    quote = must(await changeWhole(actor, quote.id, { version: quote.version, whole: file.whole }));
  if (file.ask) quote = must(await askSignOff(actor, quote.id, { version: quote.version, reason: file.ask }));
  if (file.daysAgo !== undefined) await age(quote, file.daysAgo);
  if (file.send) {
    quote = must(await sendQuote(actor, quote.id, { version: quote.version }));
    await connected().records.revisions.update(
      { settledAt: subDays(new Date(), (file.daysAgo ?? 1) - 1) },
      { where: { quoteId: quote.id } },
    );
  }
  if (file.then) {
    quote = must(await reviseQuote(actor, quote.id, { version: quote.version }));
    for (const { line, ...change } of file.then)
      quote = must(
        await changeLine(actor, quote.id, quote.lines[line - 1]?.id ?? '', {
          version: quote.version,
          ...change,
        }),
      );
  }
  if (file.accept) must(await acceptQuote(actor, quote.id, must(await seeQuote(actor, quote.id)).version));
}

/** Makes a quote as old as it is told to be: its lines stand on the prices of then. */
async function age(quote: QuoteView, days: number): Promise<void> {
  const { lines, revisions, quotes } = connected().records;
  const then = subDays(new Date(), days);
  await lines.update({ pricedOn: inDays(-days) }, { where: { id: quote.lines.map((line) => line.id) } });
  await revisions.update({ madeAt: then }, { where: { quoteId: quote.id } });
  await quotes.update({ createdAt: then }, { where: { id: quote.id } });
}

function must<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(`demo data refused: ${JSON.stringify(result.failures)}`);
  return result.value;
}

/** The demo's people, for the sign-in page; empty where the data is not the demo's. */
export async function demoPeople(): Promise<{
  password: string;
  people: { email: string; role: Role; name: string }[];
}> {
  const people = await connected().records.users.findAll({ order: [['email', 'ASC']] });
  const order: Role[] = ['engineer', 'manager', 'director', 'modeller', 'dealer'];
  people.sort((a, b) => order.indexOf(a.role) - order.indexOf(b.role));
  return {
    password: demoPassword,
    people: people
      .filter((person) => person.email.endsWith('.example'))
      .map(({ email, role, name }) => ({ email, role, name })),
  };
}
