/** Loads the demo scenario from its files. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { roles, type Role } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { loadCatalogue } from './demo-catalogue';
import { loadDrawings } from './demo-drawings';
import type { CustomerFile, QuoteFile } from './demo-files';
import { historyOf, loadEarlierPrices, type HistoryFile } from './demo-history';
import { familiesIn } from '../items/kept';
import { reference } from '../settings/reference-data';
import { loadSheets } from './demo-sheets';
import { loadPaper } from './demo-paper';
import { demoPassword, loadPeople } from './demo-people';
import { loadQuote } from './demo-quotes';

export { demoPassword };

/** The first quotes, which are of today and which tests know. */
const plainQuotes = 12;

/**
 * Loads everything if there are no users yet, with three years of `history` before it where that is wanted; `plain`: without
 * pictures, data sheets and the quotes that only show what else there is, for tests that need little. Gives the sign-ins;
 * `loaded` tells whether anything was done.
 */
export async function loadDemo(
  folder: string,
  { history = false, plain = false }: { history?: boolean; plain?: boolean } = {},
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
  const now = { version: 1, changedAt: new Date(), changedBy: null };
  const house = await read<Record<string, unknown>>('house.json');
  await connected().records.houseParts.bulkCreate(
    Object.entries(house).map(([part, value]) => ({ part, value, ...now })),
  );
  const people = await loadPeople(read);
  await loadPaper(read);
  const wen = (people.get('wen@harrowmoor.example') as Actor).id;
  if (!plain) {
    await loadDrawings(read, wen);
    const known = await reference();
    await loadSheets([...known.items.values()], familiesIn(known), wen);
  }
  if (history) {
    const past = await read<HistoryFile>('history.json');
    await connected().transaction(() => loadEarlierPrices(past));
    for (const quote of historyOf(past, await read<CustomerFile[]>('customers.json')))
      await loadQuote(quote, people);
  }
  const quotes = await read<QuoteFile[]>('quotes.json');
  for (const quote of plain ? quotes.slice(0, plainQuotes) : quotes) await loadQuote(quote, people);
  return { loaded: true, people: [...people.values()] };
}

/** The demo's people, for the sign-in page; empty where the data is not the demo's. */
export async function demoPeople(): Promise<{
  password: string;
  people: { email: string; role: Role; name: string }[];
}> {
  const { users, passwordLinks } = connected().records;
  const people = await users.findAll({ order: [['email', 'ASC']], raw: true });
  const links = await passwordLinks.findAll({ raw: true });
  // Whoever has set a password of their own has the demo's no more.
  const own = new Set(links.flatMap(({ userId, usedAt }) => (usedAt ? [userId] : [])));
  people.sort((a, b) => roles.indexOf(a.role) - roles.indexOf(b.role));
  return {
    password: demoPassword,
    people: people
      .filter(({ id, email, passwordHash, asideAt }) => email.endsWith('.example') && passwordHash !== null && !asideAt && !own.has(id))
      .map(({ email, role, name }) => ({ email, role, name })),
  };
}
