import { Exact } from '../../core/exact';
import type { DeskView } from '../../contract';
import { askedOfPerson } from './asking';
import { type Actor, may } from '../access/actor';
import { listOrders } from '../orders/orders';
import { listQuotes, quotaSums } from '../quotes/quote-list';
import { reference, type Person } from '../settings/reference-data';
import { askedOf } from '../quotes/sign-off/standing';

/** The share of open quotes that is counted towards the quota. */
const weight = '0.3';

/**
 * What waits for a person: own quotes, or the team's where asked for, by what is next; orders, and how the
 * year stands.
 */
export async function desk(actor: Actor, whose: DeskView['whose'] = 'mine'): Promise<DeskView> {
  const { people } = await reference();
  const waiting = await listQuotes(actor, {
    states: ['draft', 'signOff', 'ready', 'sent', 'expired'],
    mine: whose === 'mine',
  });
  const orders = await listOrders(actor, { page: 0 });
  const view: DeskView = {
    whose,
    quotes: waiting.rows,
    count: waiting.count,
    orders: orders.rows,
    asked: await askedOf(actor),
    ...(await askedOfPerson(actor)),
  };
  const person = people.get(actor.id);
  const quota = person && (await quotaOf(actor, person));
  return quota ? { ...view, quota } : view;
}

/**
 * How a person's year stands, in EUR; nothing for those without a quota. Who signs answers for all quotes,
 * others for their own.
 */
export async function quotaOf(actor: Actor, { id, quota, role }: Person): Promise<DeskView['quota']> {
  if (!quota) return undefined;
  const { won, open } = await quotaSums(actor, may({ ...actor, role }, 'sign') ? null : id);
  return { target: new Exact(quota).toFixed(0), won: won.toFixed(0), open: open.toFixed(0), weight };
}

/** Amounts of any list's currency in EUR. */
export async function euroRates(): Promise<(net: string, currency: string) => Exact> {
  const rates = new Map((await reference()).priceLists.map((list) => [list.currency, list.costRate]));
  return (net, currency) => new Exact(net).div(rates.get(currency) ?? '1');
}
