/**
 * Acceptance: a quote becomes an order and, for each build, a work order. It happens once, whole or not at
 * all.
 */
import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { Exact } from '../../core/exact';
import { countedIn } from '../../core/model';
import {
  orderListInput,
  type OrderListQuery,
  type OrderPage,
  type OrderRow as OrderSummary,
  type OrderView,
  type WorkOrderView,
} from '../../contract';
import { sumLines } from '../../core/pricing';
import { numberBy } from '../../core/quotes';
import { connected, type BuildRow, type OrderRow, type WorkOrderRow } from '../../data';
import { may, refusal, type Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { slowest } from '../quotes/figures/delivery';
import { askEngine } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { forgiving, wordConditions, type Likeness } from '../kernel/finding';
import { pageSize } from '../quotes/quote-list';
import { findAnyQuote } from '../quotes/quote-state';
import { workCentresOn } from '../settings/in-force';
import { nameOf, reference, type Reference } from '../settings/reference-data';
import { deliveredTo, invoicedIn } from '../settings/addressed';
import {
  counted,
  partsIn,
  partsOf,
  priceAll,
  priceLines,
  type QuotedLine,
} from '../quotes/figures/quote-pricing';
import { changeQuote } from '../quotes/quotes';
import { housePart, madeWhen, marketIn, promisedWhen } from '../settings/house';
import { nextNumber } from '../settings/numbers';
import { obstacles, settle } from '../quotes/history/revisions';
import { record } from '../kernel/unit-of-work';
import { isReference } from '../kernel/reference';

/** Makes an order of a quote, once, whole or not at all. */
export async function acceptQuote(
  actor: Actor,
  id: string,
  version: number,
): Promise<Result<{ orderId: string; number: string }>> {
  const refused = refusal(actor, 'accept');
  if (refused) return refused;
  let made: { orderId: string; number: string } | undefined;
  const result = await changeQuote(
    actor,
    id,
    version,
    async ({ quote, revision, state }) => {
      const parts = await partsIn(state);
      const quoted = await priceAll(parts);
      const { lines: priced } = quoted;
      const sold = counted(priced);
      if (revision.state === 'sent' && revision.validUntil < today())
        return fail('conflict', { code: 'revision.is.expired', params: { number: revision.number } });
      const refusedYet = revision.state === 'draft' ? await obstacles(state, quoted) : [];
      if (refusedYet.length > 0) return fail('invalid', ...refusedYet);
      await settle(actor, revision, priced, { state: 'accepted' }, parts);
      const days = await slowest(sold);
      const numbers = await housePart('numbers');
      const { code: market } = await marketIn(invoicedIn(revision.customer));
      const number = await nextNumber('order', numbers.order, market);
      const { net } = sumLines(
        sold.map((each) => each.price),
        parts.list.decimals,
      );
      const order = await connected().records.orders.create({
        id: randomUUID(),
        number,
        quoteId: quote.id,
        revisionId: revision.id,
        currency: parts.list.currency,
        net,
        promised: await promisedWhen(today(), days, deliveredTo(revision.customer)),
        createdBy: actor.id,
      });
      await makeWorkOrders(order, sold, days);
      await record(actor, 'quote.accepted', quote.number, {
        order: number,
        net,
        currency: parts.list.currency,
      });
      made = { orderId: order.id, number };
      return done(null);
    },
    { states: ['draft', 'sent'], steps: false },
  );
  return result.ok && made ? done(made) : (result as Result<never>);
}

async function makeWorkOrders(order: OrderRow, priced: readonly QuotedLine[], days: number): Promise<void> {
  const made = priced.flatMap(({ line, build, item }) => (build ? [{ line, build, item }] : []));
  const due = await madeWhen(today(), days);
  const { workOrder } = await housePart('numbers');
  const makings =
    made.length === 0
      ? []
      : await askEngine(
          'making',
          made.map(({ build }) => ({ version: build.modelVersionId, values: build.outcome.values })),
        );
  await connected().records.workOrders.bulkCreate(
    made.map(({ line, build, item }, index): WorkOrderRow => {
      const { materials = [], operations = [], words = [] } = makings[index] ?? {};
      const total = (value: string): string => new Exact(value).times(line.quantity).toString();
      return {
        id: randomUUID(),
        number: numberBy(workOrder.pattern, {
          year: Number(today().slice(0, 4)),
          count: index + 1,
          order: order.number,
        }),
        orderId: order.id,
        lineId: line.id,
        title: item.name,
        partNumber: build.outcome.partNumber,
        quantity: line.quantity,
        decisions: words.map(({ name, value }) => ({ name, value })),
        materials: materials.map((need) => {
          const counted = (value: string): string =>
            new Exact(value).times(countedIn(need.counts, line.quantity)).toString();
          const special = build.special.find((part) => part.item === need.item)?.text;
          return {
            ...need,
            quantity: counted(need.quantity),
            ...(need.pieces === undefined ? {} : { pieces: counted(need.pieces) }),
            ...(special === undefined ? {} : { special }),
          };
        }),
        operations: operations.map((step) => ({ ...step, run: total(step.run) })),
        due,
      };
    }),
  );
}

const orderSql = `select o.id, o.number, q.number as "quoteNumber", r.customer ->> 'name' as customer, o.net, o.currency, l.decimals, o.promised::text as promised, o.created_at as "createdAt",
    (select count(*)::int from work_orders w where w.order_id = o.id) as "workOrders", count(*) over () as count
  from orders o join quotes q on q.id = o.quote_id join quote_revisions r on r.id = o.revision_id join price_lists l on l.code = r.price_list`;

type OrderFound = Omit<OrderSummary, 'createdAt'> & { createdAt: Date; count: string };

const summaryOf = ({ createdAt, count: _count, net, ...row }: OrderFound): OrderSummary => ({
  ...row,
  net: new Exact(net).toString(),
  createdAt: createdAt.toISOString(),
});

/** Orders, the newest first, a page at a time. */
export async function listOrders(
  actor: Actor,
  asked: Partial<OrderListQuery> = {},
  only?: Likeness,
): Promise<OrderPage> {
  const { find, page } = orderListInput.cast(asked);
  if (!may(actor, 'orders')) return { rows: [], page, size: pageSize, count: 0 };
  const rows = await forgiving(
    find,
    (likeness) => {
      const bind: unknown[] = [];
      const words = wordConditions(find, likeness, (value) => `$${String(bind.push(value))}`, [
        'o.number',
        'q.number',
        `(r.customer ->> 'name')`,
      ]);
      return connected().sequelize.query<OrderFound>(
        `${orderSql} ${words.length > 0 ? `where ${words.join(' and ')}` : ''} order by o.created_at desc, o.id limit ${String(pageSize)} offset ${String(page * pageSize)}`,
        { bind, type: QueryTypes.SELECT },
      );
    },
    only,
  );
  return { rows: rows.map(summaryOf), page, size: pageSize, count: Number(rows[0]?.count ?? 0) };
}

/** An order that the person may see. */
export async function seeOrder(actor: Actor, id: string): Promise<Result<OrderView>> {
  const missing = fail('missing', { code: 'order.missing' });
  const { orders, revisions, workOrders } = connected().records;
  if (!may(actor, 'orders') || !isReference(id)) return missing;
  const order = await orders.findByPk(id, { raw: true });
  const quote = order && (await findAnyQuote(order.quoteId));
  if (!order || !quote) return missing;
  const [found] = await connected().sequelize.query<OrderFound>(`${orderSql} where o.id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  const revision = await revisions.findByPk(order.revisionId, { raw: true });
  if (!found || !revision) throw new Error(`order ${order.number} without quote`);
  const priced = counted(await priceLines(await partsOf(quote, revision.number)));
  const known = await reference();
  const rows = await workOrders.findAll({ where: { orderId: id }, order: [['number', 'ASC']] });
  const builds = new Map(priced.flatMap(({ line, build }) => (build ? [[line.id, build] as const] : [])));
  const { addresses } = revision.customer;
  return done({
    ...summaryOf(found),
    quoteId: quote.id,
    revision: revision.number,
    createdBy: nameOf(known, order.createdBy),
    address: addresses.find((each) => each.kind === 'delivery') ?? (addresses[0] as OrderView['address']),
    contact: revision.customer.contactName,
    lines: priced.map(({ line, item, build, price }) => ({
      position: line.position,
      name: item.name,
      partNumber: build?.outcome.partNumber ?? line.sku,
      quantity: line.quantity,
      net: price.net,
    })),
    workOrderList: may(actor, 'workOrders')
      ? rows.map((row) => workOrderView(known, row, builds.get(row.lineId)))
      : [],
  });
}

function workOrderView(known: Reference, row: WorkOrderRow, build: BuildRow | undefined): WorkOrderView {
  const { items } = known;
  const centres = new Map(workCentresOn(known, today()).map((centre) => [centre.code, centre.name]));
  return {
    id: row.id,
    number: row.number,
    title: row.title,
    partNumber: row.partNumber,
    quantity: row.quantity,
    due: row.due,
    decisions: row.decisions,
    materials: row.materials.map(({ item, quantity, cut, pieces, special }) => ({
      item,
      name: items.get(item)?.name ?? {},
      unit: items.get(item)?.unit ?? '',
      quantity,
      ...(cut ? { cut } : {}),
      ...(pieces ? { pieces } : {}),
      ...(special === undefined ? {} : { special }),
    })),
    ...(build ? { buildId: build.id } : {}),
    warnings: (build?.outcome.warnings ?? []).flatMap(({ text, passed }) =>
      passed ? [{ text, by: passed.by, reason: passed.reason }] : [],
    ),
    operations: row.operations.map(({ name, centre, setUp, run, text }) => ({
      name,
      centre,
      centreName: centres.get(centre) ?? {},
      setUp,
      run,
      text,
    })),
  };
}
