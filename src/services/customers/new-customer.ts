/** New customers. */
import { randomUUID } from 'node:crypto';
import type {
  Address,
  AddressInput,
  ContactInput,
  CustomerFound,
  CustomerMeans,
  NewCustomerInput,
} from '../../contract';
import { languageIn } from '../../core/quotes';
import { connected } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { usualPriceList } from '../catalogue/catalogue';
import { done, fail, type Result } from '../kernel/failure';
import { inTransaction, record } from '../kernel/unit-of-work';
import { housePart, knownRegions } from '../settings/house';
import { reference } from '../settings/reference-data';

/** What one may choose from for a new customer. A dealer's own buys on the dealer's list. */
export async function customerMeans(actor: Actor): Promise<CustomerMeans> {
  const { priceLists } = connected().records;
  const own = actor.role === 'dealer' ? await usualPriceList(actor) : undefined;
  const lists = (await priceLists.findAll({ order: [['code', 'ASC']], raw: true })).filter(
    (list) => own === undefined || list.code === own,
  );
  return {
    priceLists: lists.map(({ code, name, currency }) => ({ code, name, currency })),
    classes: actor.role === 'dealer' ? ['direct'] : ['direct', 'key', 'dealer', 'public'],
    regions: await knownRegions(),
    countries: await knownCountries(),
    usual: (await housePart('markets')).markets.map(({ countries, priceList, language, region }) => ({
      countries: [...countries],
      priceList: lists.some(({ code }) => code === priceList) ? priceList : null,
      language: languageIn(language),
      region,
    })),
  };
}

/** Countries that the house sells to, in the order of their letters. */
export async function knownCountries(): Promise<string[]> {
  const { taxRates } = await reference();
  const { markets } = await housePart('markets');
  return [
    ...new Set([...taxRates.map(({ country }) => country), ...markets.flatMap(({ countries }) => countries)]),
  ].sort();
}

/** Makes a customer; a dealer's is the dealer's own. */
export async function createCustomer(
  actor: Actor,
  { invoice, delivery, contactName, contactEmail, ...input }: NewCustomerInput,
): Promise<Result<CustomerFound>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const means = await customerMeans(actor);
  const list = means.priceLists.find(({ code }) => code === input.priceList);
  if (!list) return fail('invalid', { code: 'newCustomer.noList', field: 'priceList' });
  if (!means.classes.includes(input.class)) return fail('invalid', { code: 'input.badKind', field: 'class' });
  if (!means.regions.includes(input.region))
    return fail('invalid', { code: 'input.badKind', field: 'region' });
  return inTransaction(async () => {
    const { customers } = connected().records;
    const same = await customers.findOne({ where: { name: input.name, dealerId: actor.dealerId } });
    if (same)
      return fail('conflict', {
        code: 'newCustomer.known',
        params: { name: same.name, number: same.number },
        field: 'name',
      });
    const id = randomUUID();
    const number = await nextCustomerNumber();
    await customers.create({
      id,
      number,
      ...input,
      class: input.class,
      dealerId: actor.dealerId,
      version: 1,
    });
    await addContact(id, { name: contactName, email: contactEmail, task: '' });
    await addAddress(id, 'invoice', invoice);
    await addAddress(id, 'delivery', delivery ?? invoice);
    await record(actor, 'customer.made', number, { name: input.name });
    return done({
      id,
      number,
      name: input.name,
      town: invoice.town,
      class: input.class,
      currency: list.currency,
    });
  });
}

/** "C-1012" after "C-1011"; given out one at a time. */
async function nextCustomerNumber(): Promise<string> {
  await connected().sequelize.query("select pg_advisory_xact_lock(hashtext('customer numbers'))");
  const [rows] = await connected().sequelize.query(
    "select coalesce(max(substring(number from '^C-(\\d+)$')::int), 1000) + 1 as next from customers",
  );
  const [{ next }] = rows as [{ next: number }];
  return `C-${String(next)}`;
}

/** One more address of a kind; the first stays the usual one. */
export async function addAddress(
  customerId: string,
  kind: Address['kind'],
  address: AddressInput,
): Promise<void> {
  const { addresses } = connected().records;
  const count = await addresses.count({ where: { customerId, kind } });
  await addresses.create({ id: randomUUID(), customerId, kind, ...address, position: count });
}

/** One more person to talk to; the first stays the usual one. */
export async function addContact(customerId: string, contact: ContactInput): Promise<void> {
  const { contacts } = connected().records;
  const count = await contacts.count({ where: { customerId } });
  await contacts.create({ id: randomUUID(), customerId, ...contact, position: count });
}
