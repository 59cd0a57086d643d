import { Op } from 'sequelize';
import type { CustomerFound } from '../core/quoting';
import { connected, type CustomerCopy, type CustomerRow } from '../data';
import type { Actor } from './actor';

const most = 12;

/** Customers an actor may sell to: a dealer's own, or all that are not a dealer's own. */
export function ownCustomers(actor: Actor): Record<string, unknown> {
  return actor.role === 'dealer' ? { dealerId: actor.dealerId } : { dealerId: null };
}

/** Finds customers by any part of name, number or town, or by who calls from there. */
export async function findCustomers(actor: Actor, text: string): Promise<CustomerFound[]> {
  const { customers, addresses, contacts, priceLists } = connected().records;
  const words = text.trim().split(/\s+/).filter(Boolean).slice(0, 5);
  const towns = await addresses.findAll({ attributes: ['customerId', 'town', 'kind'], raw: true });
  const town = new Map(towns.filter((each) => each.kind === 'invoice').map((each) => [each.customerId, each.town]));
  const inTown = (word: string) => towns.filter((each) => each.town.toLowerCase().includes(word.toLowerCase())).map((each) => each.customerId);
  const people = await contacts.findAll({ attributes: ['customerId', 'name'], raw: true });
  const calling = (word: string) => people.filter((each) => each.name.toLowerCase().includes(word.toLowerCase())).map((each) => each.customerId);
  const rows = await customers.findAll({
    where: {
      ...ownCustomers(actor),
      [Op.and]: words.map((word) => {
        const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`;
        return { [Op.or]: [{ name: { [Op.iLike]: like } }, { number: { [Op.iLike]: like } }, { id: [...inTown(word), ...calling(word)] }] };
      }),
    },
    order: [['name', 'ASC']],
    limit: most,
    raw: true,
  });
  const currencies = new Map((await priceLists.findAll({ raw: true })).map((list) => [list.code, list.currency]));
  return rows.map(({ id, number, name, class: kind, priceList }) => ({ id, number, name, class: kind, town: town.get(id) ?? '', currency: currencies.get(priceList) ?? '' }));
}

/** As it stands on a quote: with the usual address of each kind. */
export async function copyOf(customer: CustomerRow): Promise<CustomerCopy> {
  const { addresses, contacts } = connected().records;
  const contact = await contacts.findOne({ where: { customerId: customer.id }, order: [['position', 'ASC']], raw: true });
  const rows = await addresses.findAll({ where: { customerId: customer.id }, order: [['kind', 'DESC'], ['position', 'ASC'], ['id', 'ASC']], raw: true });
  const usual = (['invoice', 'delivery'] as const).flatMap((kind) => rows.find((row) => row.kind === kind) ?? []);
  return {
    number: customer.number, name: customer.name, class: customer.class, language: customer.language, region: customer.region,
    contactName: contact?.name ?? '', contactEmail: contact?.email ?? '',
    paymentDays: customer.paymentDays,
    addresses: usual.map(({ kind, street, town, postcode, country }) => ({ kind, street, town, postcode, country })),
  };
}
