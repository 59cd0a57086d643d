import { QueryTypes } from 'sequelize';
import type { CustomerFound } from '../../contract';
import { connected, type CustomerCopy, type CustomerRow } from '../../data';
import type { Actor } from '../access/actor';
import { forgiving, wordConditions, type Likeness } from '../kernel/finding';

const most = 12;

/** Customers an actor may sell to: a dealer's own, or all that are not a dealer's own. */
export function ownCustomers(actor: Actor): Record<string, unknown> {
  return actor.role === 'dealer' ? { dealerId: actor.dealerId } : { dealerId: null };
}

/** Finds customers by any part of name, number or town, or by who calls from there. */
export async function findCustomers(actor: Actor, text: string, only?: Likeness): Promise<CustomerFound[]> {
  return forgiving(
    text,
    (likeness) => {
      const bind: unknown[] = actor.role === 'dealer' ? [actor.dealerId] : [];
      const words = wordConditions(
        text,
        likeness,
        (value) => `$${String(bind.push(value))}`,
        ['c.name', 'c.number'],
        (holds) => [
          `exists (select 1 from addresses a where a.customer_id = c.id and ${holds('a.town')})`,
          `exists (select 1 from contacts p where p.customer_id = c.id and ${holds('p.name')})`,
        ],
      );
      return connected().sequelize.query<CustomerFound>(
        `select c.id, c.number, c.name, c.class, l.currency, coalesce((select town from addresses a where a.customer_id = c.id and a.kind = 'invoice' order by position limit 1), '') as town
       from customers c join price_lists l on l.code = c.price_list where ${[actor.role === 'dealer' ? 'c.dealer_id = $1' : 'c.dealer_id is null', ...words].join(' and ')} order by c.name limit ${String(most)}`,
        { bind, type: QueryTypes.SELECT },
      );
    },
    only,
  );
}

/** As it stands on a quote: with the usual address of each kind. */
export async function copyOf(customer: CustomerRow): Promise<CustomerCopy> {
  const { addresses, contacts } = connected().records;
  const contact = await contacts.findOne({
    where: { customerId: customer.id },
    order: [['position', 'ASC']],
    raw: true,
  });
  const rows = await addresses.findAll({
    where: { customerId: customer.id },
    order: [
      ['kind', 'DESC'],
      ['position', 'ASC'],
      ['id', 'ASC'],
    ],
    raw: true,
  });
  const usual = (['invoice', 'delivery'] as const).flatMap(
    (kind) => rows.find((row) => row.kind === kind) ?? [],
  );
  return {
    number: customer.number,
    name: customer.name,
    class: customer.class,
    language: customer.language,
    region: customer.region,
    contactName: contact?.name ?? '',
    contactEmail: contact?.email ?? '',
    paymentDays: customer.paymentDays,
    addresses: usual.map(({ kind, street, town, postcode, country }) => ({
      kind,
      street,
      town,
      postcode,
      country,
    })),
  };
}
