/** A quote with every figure worked out anew on the server, as one actor may see it. */
import type { Transaction } from 'sequelize';
import { roundHalfUp, exact } from '../core/exact';
import type { LineView, QuoteView } from '../core/quoting';
import { sumLines, type LinePrice, type Whole } from '../core/pricing';
import type { Texts } from '../core/model';
import { connected, type BuildRow, type QuoteRow } from '../data';
import { may, type Actor } from './actor';
import { summarise } from './build-summary';
import { compiledVersion, versionById } from './models';
import { counted, partsOf, priceAll } from './quote-pricing';
import { signOffsOf } from './standing';
import { deliveredTo, taxOf } from './tax';

export async function viewOf(actor: Actor, quote: QuoteRow, transaction: Transaction | null = null): Promise<QuoteView> {
  const { users, orders } = connected().records;
  const parts = await partsOf(quote, transaction);
  const { revision, tariff } = parts;
  const { lines: priced, comes } = await priceAll(parts, transaction);
  const seeCosts = may(actor, 'costs');
  const shown = (price: LinePrice): LinePrice => (seeCosts ? price : withoutCost(price));
  const names = new Map((await users.findAll({ attributes: ['id', 'name'], transaction, raw: true })).map((user) => [user.id, user.name]));
  const order = await orders.findOne({ where: { quoteId: quote.id }, transaction });
  const draft = revision.state === 'draft';
  const signOff = draft ? await signOffsOf(actor, quote, revision, priced, transaction) : undefined;
  const country = deliveredTo(revision.customer);
  const tax = await taxOf(country, counted(priced), tariff.decimals, transaction);
  const lines = await Promise.all(
    priced.map(async ({ line, item, build, price, parts: buildPrice, problems, method, recurs }): Promise<LineView> => ({
      id: line.id,
      position: line.position,
      sku: line.sku,
      family: item.family,
      name: item.name,
      partNumber: build?.outcome.partNumber ?? line.sku,
      quantity: line.quantity,
      hand: line.hand,
      locked: line.locked,
      optional: line.optional,
      discountable: item.discountable,
      ...(recurs ? { recurs: { baseMonths: recurs.every.baseMonths, leastMonths: recurs.every.leastMonths ?? 0, term: recurs.term } } : {}),
      ...(method === 'hand' ? { typedPrice: line.typedPrice === null ? null : exact(line.typedPrice).toString() } : {}),
      ...(method && method !== 'unit' ? { method } : {}),
      price: shown(price),
      problems,
      warnings: build?.outcome.warnings ?? [],
      special: build?.special.map(({ item: of, text }) => ({ item: of, text })) ?? [],
      alternative: line.alternative,
      ...(build ? { buildId: build.id, summary: await summaryOf(build, transaction) } : {}),
      ...(buildPrice ? { build: buildPrice } : {}),
    })),
  );
  return {
    id: quote.id, number: quote.number, title: quote.title, version: quote.version,
    revision: { number: revision.number, state: revision.state, validUntil: revision.validUntil },
    customer: revision.customer, owner: names.get(quote.ownerId) ?? '', priceList: revision.priceList, currency: tariff.currency, decimals: tariff.decimals,
    lines, totals: sumLines(counted(priced).map((each) => shown(each.price)), tariff.decimals),
    whole: { typed: revision.whole, comes: seeCosts ? comes : withoutMargin(comes) },
    taxCountry: country, ...(tax ? { tax } : {}),
    ...(signOff ? { signOff } : {}),
    updatedBy: names.get(quote.updatedBy) ?? '', updatedAt: quote.updatedAt.toISOString(),
    ...(order && may(actor, 'orders') ? { order: { id: order.id, number: order.number } } : {}),
    may: { edit: draft && may(actor, 'quotes'), accept: draft && may(actor, 'accept'), seeCosts },
  };
}

async function summaryOf(build: BuildRow, transaction: Transaction | null): Promise<Texts> {
  const model = compiledVersion(await versionById(build.modelVersionId, transaction ?? undefined));
  const rows = summarise(model, build.outcome.values);
  return Object.fromEntries(model.document.languages.map((language) => [language, rows.map((row) => `${row.name[language] ?? ''}: ${row.value[language] ?? ''}`).join('; ')]));
}

export function withoutCost({ unitCost: _unitCost, cost: _cost, margin: _margin, once, ...open }: LinePrice): LinePrice {
  return once ? { ...open, once: { list: once.list, net: once.net } } : open;
}

function withoutMargin(whole: Whole): Whole {
  if (whole.is === 'impossible') return whole;
  const { margin: _margin, ...open } = whole;
  return open;
}

export const rounded = (amount: string, decimals: number): string => roundHalfUp(exact(amount), decimals).toString();
