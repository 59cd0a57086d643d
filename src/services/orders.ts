/** Acceptance: a quote becomes an order and, for each build, a work order. It happens once, whole or not at all. */
import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import { Exact } from '../core/exact';
import type { OrderRow as OrderSummary, OrderView, WorkOrderView } from '../core/quoting';
import { making, shippingDays } from '../core/production';
import { sumLines } from '../core/pricing';
import { connected, type OrderRow, type WorkOrderRow } from '../data';
import { may, refusal, type Actor } from './actor';
import { summarise } from './build-summary';
import { inWorkingDays, today } from './clock';
import { slowest } from './delivery';
import { done, fail, type Result } from './failure';
import { compiledVersion, versionById } from './models';
import { counted, partsOf, priceLines, type QuotedLine } from './quote-pricing';
import { changeQuote, nextNumber } from './quotes';
import { obstacles, settle } from './revisions';
import { record } from './work';
import { isReference } from './reference';

export async function acceptQuote(actor: Actor, id: string, version: number): Promise<Result<{ orderId: string; number: string }>> {
  const refused = refusal(actor, 'accept');
  if (refused) return refused;
  let made: { orderId: string; number: string } | undefined;
  const result = await changeQuote(actor, id, version, async ({ quote, revision }) => {
    const parts = await partsOf(quote);
    const priced = await priceLines(parts);
    const sold = counted(priced);
    if (revision.state === 'sent' && revision.validUntil < today()) return fail('conflict', { code: 'revision.is.expired', params: { number: revision.number } });
    const refusedYet = revision.state === 'draft' ? await obstacles(quote, revision, priced) : [];
    if (refusedYet.length > 0) return fail('invalid', ...refusedYet);
    await settle(actor, revision, priced, { state: 'accepted' }, parts);
    const days = await slowest(sold);
    const number = await nextNumber('order_numbers', 'O');
    const { net } = sumLines(sold.map((each) => each.price), parts.list.decimals);
    const order = await connected().records.orders.create(
      { id: randomUUID(), number, quoteId: quote.id, revisionId: revision.id, currency: parts.list.currency, net, promised: inWorkingDays(days + shippingDays), createdBy: actor.id },
    );
    await makeWorkOrders(order, sold, days);
    await record(actor, 'quote.accepted', quote.number, { order: number, net, currency: parts.list.currency });
    made = { orderId: order.id, number };
    return done(null);
  }, { states: ['draft', 'sent'], steps: false });
  return result.ok && made ? done(made) : (result as Result<never>);
}

async function makeWorkOrders(order: OrderRow, priced: readonly QuotedLine[], days: number): Promise<void> {
  let count = 0;
  for (const { line, build, item } of priced) {
    if (!build) continue;
    const model = compiledVersion(await versionById(build.modelVersionId));
    const { materials, operations } = making(model, build.outcome.values);
    const total = (value: string): string => new Exact(value).times(line.quantity).toString();
    count += 1;
    await connected().records.workOrders.create(
      {
        id: randomUUID(), number: `${order.number.replace('O', 'W')}-${String(count)}`, orderId: order.id, lineId: line.id, title: item.name, partNumber: build.outcome.partNumber,
        quantity: line.quantity, decisions: summarise(model, build.outcome.values).map(({ name, value }) => ({ name, value })),
        materials: materials.map((need) => {
          const special = build.special.find((part) => part.item === need.item)?.text;
          return { ...need, quantity: need.grows === undefined ? total(need.quantity) : need.quantity, ...(special === undefined ? {} : { special }) };
        }),
        operations: operations.map((step) => ({ ...step, run: total(step.run) })),
        due: inWorkingDays(days),
      },
    );
  }
}

export async function listOrders(actor: Actor): Promise<OrderSummary[]> {
  if (!may(actor, 'orders')) return [];
  const rows = await connected().records.orders.findAll({ order: [['createdAt', 'DESC']] });
  return Promise.all(rows.map(rowOf));
}

async function rowOf(order: OrderRow): Promise<OrderSummary> {
  const { quotes, revisions, workOrders, priceLists } = connected().records;
  const [quote, revision] = [await quotes.findByPk(order.quoteId), await revisions.findByPk(order.revisionId)];
  const list = await priceLists.findByPk(revision?.priceList ?? '');
  return {
    id: order.id, number: order.number, quoteNumber: quote?.number ?? '', customer: revision?.customer.name ?? '', net: new Exact(order.net).toString(), currency: order.currency,
    decimals: list?.decimals ?? 2, promised: order.promised, createdAt: (order.createdAt ?? new Date()).toISOString(), workOrders: await workOrders.count({ where: { orderId: order.id } }),
  };
}

export async function seeOrder(actor: Actor, id: string): Promise<Result<OrderView>> {
  const missing = fail('missing', { code: 'order.missing' });
  const { orders, quotes, revisions, workOrders, users } = connected().records;
  if (!may(actor, 'orders') || !isReference(id)) return missing;
  const order = await orders.findByPk(id);
  if (!order) return missing;
  const [quote, revision, user] = [await quotes.findByPk(order.quoteId), await revisions.findByPk(order.revisionId), await users.findByPk(order.createdBy)];
  if (!quote || !revision) throw new Error(`order ${order.number} without quote`);
  const priced = counted(await priceLines(await partsOf(quote, revision.number)));
  const rows = await workOrders.findAll({ where: { orderId: id }, order: [['number', 'ASC']] });
  const { addresses } = revision.customer;
  return done({
    ...(await rowOf(order)),
    quoteId: quote.id, revision: revision.number, createdBy: user?.name ?? '',
    address: addresses.find((each) => each.kind === 'delivery') ?? (addresses[0] as OrderView['address']),
    contact: revision.customer.contactName,
    lines: priced.map(({ line, item, build, price }) => ({ position: line.position, name: item.name, partNumber: build?.outcome.partNumber ?? line.sku, quantity: line.quantity, net: price.net })),
    workOrderList: may(actor, 'workOrders') ? await Promise.all(rows.map(workOrderView)) : [],
  });
}

async function workOrderView(row: WorkOrderRow): Promise<WorkOrderView> {
  const { items, workCentres } = connected().records;
  const named = new Map((await items.findAll({ where: { sku: { [Op.in]: row.materials.map((need) => need.item) } }, raw: true })).map((item) => [item.sku, item]));
  const centres = new Map((await workCentres.findAll({ raw: true })).map((centre) => [centre.code, centre.name]));
  return {
    id: row.id, number: row.number, title: row.title, partNumber: row.partNumber, quantity: row.quantity, due: row.due, decisions: row.decisions,
    materials: row.materials.map(({ item, quantity, cut, special }) => ({ item, name: named.get(item)?.name ?? {}, unit: named.get(item)?.unit ?? '', quantity, ...(cut ? { cut } : {}), ...(special === undefined ? {} : { special }) })),
    operations: row.operations.map(({ name, centre, setUp, run, text }) => ({ name, centre, centreName: centres.get(centre) ?? {}, setUp, run, text })),
  };
}
