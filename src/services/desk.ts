import { Exact } from '../core/exact';
import type { DeskView } from '../core/quoting';
import { connected } from '../data';
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
  const { users, priceLists } = connected().records;
  const [quotes, orders, user] = [await listQuotes(actor), await listOrders(actor), await users.findByPk(actor.id)];
  const view: DeskView = { quotes, orders, asked: await askedOf(actor) };
  if (!user?.quota) return view;
  const rates = new Map((await priceLists.findAll({ raw: true })).map((list) => [list.currency, list.costRate]));
  const inEuro = (net: string, currency: string) => new Exact(net).div(rates.get(currency) ?? '1');
  const sum = (rows: { net: string; currency: string }[]) => rows.reduce((all, row) => all.plus(inEuro(row.net, row.currency)) as Exact, new Exact(0)).toFixed(0);
  const thisYear = today().slice(0, 4);
  const mine = (row: { owner: string }) => may(actor, 'sign') || row.owner === actor.name;
  const own = quotes.filter(mine);
  const won = own.filter((quote) => quote.state === 'accepted' && quote.updatedAt.startsWith(thisYear));
  return { ...view, quota: { target: new Exact(user.quota).toFixed(0), won: sum(won), open: sum(own.filter((quote) => open.has(quote.state))), weight } };
}
