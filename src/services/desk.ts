import { Exact } from '../core/exact';
import type { DeskView, QuoteRow } from '../core/quoting';
import { connected, type UserRow } from '../data';
import { may, type Actor } from './actor';
import { today } from './clock';
import { listOrders } from './orders';
import { listQuotes } from './quotes';
import { askedOf } from './standing';

/** Quotes that may still be won. */
const open: ReadonlySet<string> = new Set(['draft', 'signOff', 'ready', 'sent']);

/** The share of open quotes that is counted towards the quota. */
const weight = '0.3';

/** What waits for a person: quotes by what is next, orders, and how the year stands. */
export async function desk(actor: Actor): Promise<DeskView> {
  const { users } = connected().records;
  const [quotes, orders, user] = [await listQuotes(actor), await listOrders(actor), await users.findByPk(actor.id)];
  const view: DeskView = { quotes, orders, asked: await askedOf(actor) };
  const quota = user && (await quotaOf(actor, user, quotes));
  return quota ? { ...view, quota } : view;
}

/** How a person's year stands, in EUR; nothing for those without a quota. */
export async function quotaOf(actor: Actor, { quota, name }: UserRow, quotes: readonly QuoteRow[]): Promise<DeskView['quota']> {
  if (!quota) return undefined;
  const inEuro = await euroRates();
  const sum = (rows: readonly QuoteRow[]) => rows.reduce((all, row) => all.plus(inEuro(row.net, row.currency)) as Exact, new Exact(0)).toFixed(0);
  const thisYear = today().slice(0, 4);
  const own = quotes.filter((row) => may(actor, 'sign') || row.owner === name);
  const won = own.filter((quote) => quote.state === 'accepted' && quote.updatedAt.startsWith(thisYear));
  return { target: new Exact(quota).toFixed(0), won: sum(won), open: sum(own.filter((quote) => open.has(quote.state))), weight };
}

/** Amounts of any list's currency in EUR. */
export async function euroRates(): Promise<(net: string, currency: string) => Exact> {
  const rates = new Map((await connected().records.priceLists.findAll({ raw: true })).map((list) => [list.currency, list.costRate]));
  return (net, currency) => new Exact(net).div(rates.get(currency) ?? '1') as Exact;
}
