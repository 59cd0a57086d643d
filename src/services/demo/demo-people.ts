/** The demo's customers and people. */
import { randomUUID } from 'node:crypto';
import { connected, type UserRow } from '../../data';
import { actorOf, hashPassword } from '../access/sessions';
import type { Actor } from '../access/actor';
import { grantRow } from './demo-catalogue';
import type { CustomerFile, GrantFile, Read, UserFile } from './demo-files';

/** The password of all of the demo's people. */
export const demoPassword = 'harrowmoor';

/** Writes customers, what they are granted, and people; gives these by their addresses. */
export async function loadPeople(read: Read): Promise<Map<string, Actor>> {
  return connected().transaction(async () => {
    const customers = await loadCustomers(await read<CustomerFile[]>('customers.json'));
    const own = (await read<GrantFile[]>('grants.json')).filter(({ customer }) => customer !== undefined);
    await connected().records.grants.bulkCreate(
      own.map((file) => grantRow(file, customers.get(file.customer ?? '') ?? null)),
    );
    const people = new Map<string, Actor>();
    const passwordHash = await hashPassword(demoPassword);
    for (const { dealer, quota, ...file } of await read<UserFile[]>('users.json')) {
      const row: UserRow = {
        id: randomUUID(),
        ...file,
        passwordHash,
        dealerId: dealer ? (customers.get(dealer) as string) : null,
        quota: quota ?? null,
        preferences: {},
      };
      await connected().records.users.create(row);
      people.set(row.email, actorOf(row));
    }
    return people;
  });
}

/** Gives the ids by the numbers. Dealers come first, since their own customers refer to them. */
async function loadCustomers(files: readonly CustomerFile[]): Promise<Map<string, string>> {
  const { customers, addresses, contacts } = connected().records;
  const ids = new Map(files.map(({ number }) => [number, randomUUID() as string]));
  const sorted = [...files].sort((a, b) => Number(a.dealer !== null) - Number(b.dealer !== null));
  for (const { addresses: places, contacts: persons, dealer, ...file } of sorted) {
    const id = ids.get(file.number) as string;
    const dealerId = dealer ? (ids.get(dealer) as string) : null;
    await customers.create({ id, paymentDays: 30, version: 1, ...file, dealerId });
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
  return ids;
}
