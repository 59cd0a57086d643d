/** A quote with every figure worked out anew on the server, as one actor may see it. */
import { roundHalfUp, exact } from '../core/exact';
import { countsFor, type LineBasis, type LineView, type QuoteView, type RevisionView, type ShownState } from '../core/quoting';
import { sumLines, withRates, type LinePrice, type QuoteLine, type Whole } from '../core/pricing';
import type { Texts } from '../core/model';
import { connected, type BuildRow, type QuoteRow, type RevisionRow } from '../data';
import { may, type Actor } from './actor';
import { summarise } from './build-summary';
import { dayOf, today } from './clock';
import { coversOf, deliveredWhen } from './delivery';
import { compiledVersion, versionById } from './models';
import { counted, partsOf, priceAll } from './quote-pricing';
import { shownAs, signingIn, signOffsOf, standingOf } from './standing';
import { stepsOf } from './steps';
import { deliveredTo, taxOf, taxRatesIn } from './tax';

export async function viewOf(actor: Actor, quote: QuoteRow, number?: number): Promise<QuoteView> {
  const { users, orders, revisions, customers } = connected().records;
  const parts = await partsOf(quote, number);
  const { revision, list } = parts;
  const { lines: priced, comes } = await priceAll(parts);
  const seeCosts = may(actor, 'costs');
  const open = (price: LinePrice): LinePrice => (seeCosts ? price : withoutCost(price));
  const names = new Map((await users.findAll({ attributes: ['id', 'name'], raw: true })).map((user) => [user.id, user.name]));
  const order = await orders.findOne({ where: { quoteId: quote.id } });
  const all = await revisions.findAll({ where: { quoteId: quote.id }, order: [['number', 'DESC']] });
  const newest = all[0]?.number === revision.number;
  const draft = newest && revision.state === 'draft';
  const standing = draft ? await standingOf(quote, revision, priced) : undefined;
  const signOff = standing && (await signOffsOf(actor, standing, priced));
  const shown = shownAs(revision, priced, standing && signingIn(standing));
  const country = deliveredTo(revision.customer);
  const tax = revision.taxed ?? await taxOf(country, counted(priced), list.decimals);
  const resells = revision.resale !== null && may(actor, 'resale');
  const dealer = resells && actor.dealerId !== null ? await customers.findByPk(actor.dealerId) : null;
  const rateOf = await taxRatesIn(country);
  const settled = revision.settledAt ? dayOf(revision.settledAt) : today();
  const covers = await coversOf(priced, order?.promised ?? (await deliveredWhen(settled, counted(priced))));
  const rows = priced.map(({ line }) => line);
  const lines = await Promise.all(
    priced.map(async ({ line, item, build, price, parts: buildPrice, problems, method, recurs, from }): Promise<LineView> => ({
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
      ...(method === 'hand' ? { typedPrice: line.typedPrice === null ? null : exact(line.typedPrice).toString(), ...(seeCosts ? { typedCost: line.typedCost === null ? null : exact(line.typedCost).toString() } : {}) } : {}),
      ...(method && method !== 'unit' ? { method } : {}),
      ...usageOf(from),
      price: open(price),
      problems,
      warnings: build?.outcome.warnings ?? [],
      special: build?.special.map(({ item: of, text }) => ({ item: of, text })) ?? [],
      covers: covers.get(line.id) ?? [],
      alternative: line.alternative, rivals: line.rivals, ...(line.alternative ? { insteadOf: countsFor(rows, line)?.position } : {}),
      ...(resells ? { resale: line.resale === null ? null : exact(line.resale).toString() } : {}),
      origin: line.origin, pricedOn: line.pricedOn, group: line.groupName,
      ...(rateOf(item.taxClass) === undefined ? {} : { taxRate: rateOf(item.taxClass) as string }),
      ...(draft && from && (seeCosts || method !== 'costPlus') ? { basis: basisOf(from, seeCosts) } : {}),
      ...(build ? { buildId: build.id, summary: await summaryOf(build) } : {}),
      ...(buildPrice ? { build: buildPrice } : {}),
    })),
  );
  return {
    id: quote.id, number: quote.number, title: quote.title, version: quote.version,
    revision: { number: revision.number, state: revision.state, shown, validUntil: revision.validUntil, ...(revision.lost ? { lost: revision.lost } : {}) },
    revisions: all.map((each) => revisionView(each, each.number === revision.number ? shown : shownAs(each, [], undefined), names)),
    customer: revision.customer, owner: names.get(quote.ownerId) ?? '', priceList: revision.priceList, currency: list.currency, decimals: list.decimals,
    lines, totals: sumLines(counted(priced).map((each) => open(each.price)), list.decimals),
    whole: { typed: revision.whole, comes: seeCosts ? comes : withoutMargin(comes) },
    taxCountry: country, ...(tax ? { tax } : {}),
    ...(signOff ? { signOff } : {}),
    updatedBy: names.get(quote.updatedBy) ?? '', updatedAt: quote.updatedAt.toISOString(),
    ...(order && may(actor, 'orders') ? { order: { id: order.id, number: order.number } } : {}),
    ...(resells ? { resale: { share: exact(revision.resale ?? '0').toString(), dealer: dealer?.name ?? '' } } : {}),
    lease: revision.lease,
    steps: draft && may(actor, 'quotes') ? await stepsOf(actor, revision.id) : { undo: false, redo: false },
    may: {
      edit: draft && may(actor, 'quotes'), accept: newest && may(actor, 'accept') && (draft || shown === 'sent'), send: draft && may(actor, 'quotes'),
      agreeRates: draft && may(actor, 'rates'), discount: draft && may(actor, 'discount'), revise: may(actor, 'quotes') && all[0]?.state !== 'draft' && all[0]?.state !== 'accepted', lose: newest && may(actor, 'quotes') && (draft || revision.state === 'sent'), seeCosts,
    },
  };
}

/** The rates of what is used, agreed or the list's. */
function usageOf(from: QuoteLine | undefined): Pick<LineView, 'usage'> {
  if (from?.offer.is !== 'item' || from.offer.entry?.method !== 'usage') return {};
  const { entry, rates } = from.offer;
  const agreed = withRates(entry, rates);
  return agreed.method === 'usage' ? { usage: { slices: agreed.slices, ...(agreed.least === undefined ? {} : { least: agreed.least }), typed: rates !== undefined } } : {};
}

/** What the page needs to price a line again, without costs for those who may not see them. */
function basisOf({ offer, mass, terms: { quantity: _quantity, hand: _hand, term: _term, ...granted } }: QuoteLine, seeCosts: boolean): LineBasis {
  return { granted, ...(mass === undefined ? {} : { mass }), ...(offer.is === 'item' && offer.entry ? { entry: offer.entry } : {}), ...(offer.is === 'item' && offer.rates ? { agreed: offer.rates } : {}), ...(seeCosts && offer.cost !== undefined ? { cost: offer.cost } : {}) };
}

function revisionView({ number, validUntil, madeAt, madeBy, settledAt, settledBy, lost }: RevisionRow, state: ShownState, names: ReadonlyMap<string, string>): RevisionView {
  return {
    number, state, validUntil, madeAt: (madeAt ?? new Date()).toISOString(), madeBy: names.get(madeBy ?? '') ?? '',
    ...(settledAt ? { settledAt: settledAt.toISOString(), settledBy: names.get(settledBy ?? '') ?? '' } : {}), ...(lost ? { lost } : {}),
  };
}

async function summaryOf(build: BuildRow): Promise<Texts> {
  const model = compiledVersion(await versionById(build.modelVersionId ?? undefined));
  const rows = summarise(model, build.outcome.values);
  return Object.fromEntries(model.document.languages.map((language) => [language, rows.map((row) => `${row.name[language] ?? ''}: ${row.value[language] ?? ''}`).join('; ')]));
}

export function withoutCost({ unitCost: _unitCost, cost: _cost, margin: _margin, once, subscriptions, ...open }: LinePrice): LinePrice {
  return { ...open, ...(once ? { once: { list: once.list, net: once.net } } : {}), ...(subscriptions ? { subscriptions: subscriptions.map(withoutCost) } : {}) };
}

function withoutMargin(whole: Whole): Whole {
  if (whole.is === 'impossible') return whole;
  const { margin: _margin, ...open } = whole;
  return open;
}

export const rounded = (amount: string, decimals: number): string => roundHalfUp(exact(amount), decimals).toString();
