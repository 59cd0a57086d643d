/** A quote with every figure worked out anew on the server, as one actor may see it. */
import { exact } from '../../core/exact';
import { successorOf } from '../../core/items';
import { countsFor, type LineBasis, type ShownState } from '../../core/quotes';
import { type Covered, type LineView, type QuoteView, type RevisionView } from '../../contract';
import { sumLines, withRates, type LinePrice, type QuoteLine, type Whole } from '../../core/pricing';
import type { Texts } from '../../core/model';
import { connected, type RevisionRow } from '../../data';
import { may, type Actor } from '../access/actor';
import type { Reached, SummaryRow } from '../builds/build-summary';
import { dayOf, today } from '../kernel/clock';
import { coversOf, deliveredWhen } from './figures/delivery';
import { askEngine } from '../kernel/engines';
import { appraise, type Appraised } from './figures/quote-facts';
import { counted, type QuotedLine } from './figures/quote-pricing';
import { stamped } from './quote-stands';
import type { QuoteState } from './quote-state';
import { nameOf, reference, type Reference } from '../settings/reference-data';
import { shownAs, signingIn, signOffsOf } from './sign-off/standing';
import { stepsOf } from './history/steps';
import { listOf } from '../settings/tariffs';
import { deliveredTo } from '../settings/addressed';
import { leavesTaxApart, taxOf, taxRatesIn } from '../settings/tax';
import { Recent } from '../kernel/threads/recent';

/** What there is to take back and to make again, where that is known already. */
export type StepsKnown = { undo: boolean; redo: boolean };

/**
 * Lines as they were shown last, by revision and by what their reader may see; each with what it was made
 * from.
 */
const shownLines = new Recent<Map<string, { from: readonly unknown[]; view: LineView }>>(40_000);

/** What all lines of a quote have in common as they are shown. */
interface Showing {
  seeCosts: boolean;
  resells: boolean;
  draft: boolean;
  stamp: string;
  delivered: string;
  country: string;
  rateOf: (taxClass: string) => string | undefined;
  covers: (quoted: QuotedLine) => Covered[];
  /** What is sold in the place of an item. */
  nextOf: (sku: string) => string | null;
}

/** A revision as the person may see it. */
export async function viewOf(
  actor: Actor,
  state: QuoteState,
  { appraised, steps }: { appraised?: Appraised; steps?: StepsKnown } = {},
): Promise<QuoteView> {
  const { quote, revision, revisions: all } = state;
  const known = await reference();
  const list = listOf(known, revision.priceList);
  const {
    quoted: { lines: priced, comes },
    standing,
  } = appraised ?? (await appraise(state));
  const seeCosts = may(actor, 'costs');
  const open = (price: LinePrice): LinePrice => (seeCosts ? price : withoutCost(price));
  const newest = all[0]?.number === revision.number;
  const draft = newest && revision.state === 'draft';
  const order =
    all[0]?.state === 'accepted'
      ? await connected().records.orders.findOne({ where: { quoteId: quote.id }, raw: true })
      : null;
  const signOff = standing && (await signOffsOf(actor, standing, priced));
  const shown = shownAs(revision, priced, standing && signingIn(standing));
  const country = deliveredTo(revision.customer);
  const tax = revision.taxed ?? (await taxOf(country, counted(priced), list.decimals));
  const resells = revision.resale !== null && may(actor, 'resale');
  const settled = revision.settledAt ? dayOf(revision.settledAt) : today();
  const delivered = order?.promised ?? (await deliveredWhen(settled, counted(priced), country));
  const showing: Showing = {
    seeCosts,
    resells,
    draft,
    stamp: known.stamp,
    delivered,
    country,
    rateOf: await taxRatesIn(country),
    covers: await coversOf(delivered),
    nextOf: (sku) => successorOf(known.items, sku),
  };
  const lines = await lineViews(state, priced, showing);
  return stamped({
    id: quote.id,
    number: quote.number,
    title: quote.title,
    version: quote.version,
    revision: {
      number: revision.number,
      state: revision.state,
      shown,
      validUntil: revision.validUntil,
      ...(revision.lost ? { lost: revision.lost } : {}),
    },
    revisions: all.map((each) =>
      revisionView(known, each, each.number === revision.number ? shown : shownAs(each, [], undefined)),
    ),
    customer: revision.customer,
    owner: nameOf(known, quote.ownerId),
    priceList: revision.priceList,
    currency: list.currency,
    decimals: list.decimals,
    lines,
    totals: sumLines(
      counted(priced).map((each) => open(each.price)),
      list.decimals,
    ),
    whole: { typed: revision.whole, comes: seeCosts ? comes : withoutMargin(comes) },
    taxCountry: country,
    taxApart: await leavesTaxApart(country),
    delivered,
    ...(tax ? { tax } : {}),
    ...(signOff ? { signOff } : {}),
    updatedBy: nameOf(known, quote.updatedBy),
    updatedAt: quote.updatedAt.toISOString(),
    ...(order && may(actor, 'orders') ? { order: { id: order.id, number: order.number } } : {}),
    ...(resells
      ? { resale: { share: exact(revision.resale ?? '0').toString(), dealer: quote.dealer?.name ?? '' } }
      : {}),
    lease: revision.lease,
    steps:
      draft && may(actor, 'quotes')
        ? (steps ?? (await stepsOf(actor, revision.id)))
        : { undo: false, redo: false },
    may: {
      edit: draft && may(actor, 'quotes'),
      accept: newest && may(actor, 'accept') && (draft || shown === 'sent'),
      send: draft && may(actor, 'quotes'),
      agreeRates: draft && may(actor, 'rates'),
      discount: draft && may(actor, 'discount'),
      revise: may(actor, 'quotes') && all[0]?.state !== 'draft' && all[0]?.state !== 'accepted',
      lose: newest && may(actor, 'quotes') && (draft || revision.state === 'sent'),
      seeCosts,
    },
  });
}

/** Lines as they are shown: the same objects as before where nothing of them has changed. */
async function lineViews(
  { revision, lines: rows, tagOf }: QuoteState,
  priced: readonly QuotedLine[],
  showing: Showing,
): Promise<LineView[]> {
  const { seeCosts, resells, draft, stamp, delivered, country } = showing;
  const key = `${revision.id} ${JSON.stringify([seeCosts, resells, draft])}`;
  const before = shownLines.get(key) ?? new Map<string, { from: readonly unknown[]; view: LineView }>();
  const fromOf = (quoted: QuotedLine): readonly unknown[] => [
    quoted,
    quoted.line.frozen ? tagOf(quoted.line.id) : '',
    quoted.build ? tagOf(quoted.build.id) : '',
    quoted.line.alternative ? countsFor(rows, quoted.line)?.position : 0,
    stamp,
    delivered,
    country,
  ];
  const same = (quoted: QuotedLine, from: readonly unknown[]): LineView | undefined => {
    const had = before.get(quoted.line.id);
    // What is settled is priced from what was frozen with it, and never changes.
    return had &&
      had.from.every((each, index) => each === from[index] || (index === 0 && quoted.line.frozen !== null))
      ? had.view
      : undefined;
  };
  const wanted = priced.flatMap((quoted) =>
    quoted.build && !same(quoted, fromOf(quoted)) ? [quoted.build] : [],
  );
  const words =
    wanted.length === 0
      ? []
      : await askEngine(
          'words',
          wanted.map((build) => ({ version: build.modelVersionId, values: build.outcome.values })),
        );
  const wordsOf = new Map(wanted.map((build, index) => [build.id, words[index]]));
  const after = new Map<string, { from: readonly unknown[]; view: LineView }>();
  const views = priced.map((quoted): LineView => {
    const from = fromOf(quoted);
    const view =
      same(quoted, from) ??
      lineView(
        quoted,
        quoted.build && wordsOf.get(quoted.build.id),
        countsFor(rows, quoted.line)?.position,
        showing,
      );
    after.set(quoted.line.id, { from, view });
    return view;
  });
  shownLines.set(key, after, after.size + 10);
  return views;
}

function lineView(
  quoted: QuotedLine,
  words: { rows: readonly SummaryRow[]; reached: readonly Reached[] } | undefined,
  insteadOf: number | undefined,
  { seeCosts, resells, draft, rateOf, covers, nextOf }: Showing,
): LineView {
  const { line, item, build, price, parts: buildPrice, problems, method, recurs, from } = quoted;
  const taxRate = rateOf(item.taxClass);
  return {
    id: line.id,
    position: line.position,
    sku: line.sku,
    family: item.family,
    name: item.name,
    partNumber: build?.outcome.partNumber ?? line.sku,
    quantity: line.quantity,
    unit: item.unit,
    hand: line.hand,
    locked: line.locked,
    optional: line.optional,
    discountable: item.discountable,
    ...(draft && !item.active ? { retired: { next: nextOf(item.sku) } } : {}),
    ...(recurs
      ? {
          recurs: {
            baseMonths: recurs.every.baseMonths,
            leastMonths: recurs.every.leastMonths ?? 0,
            term: recurs.term,
          },
        }
      : {}),
    ...(method === 'hand'
      ? {
          typedPrice: line.typedPrice === null ? null : exact(line.typedPrice).toString(),
          ...(seeCosts
            ? { typedCost: line.typedCost === null ? null : exact(line.typedCost).toString() }
            : {}),
        }
      : {}),
    ...(method && method !== 'unit' ? { method } : {}),
    ...usageOf(from),
    price: seeCosts ? price : withoutCost(price),
    problems,
    warnings: build?.outcome.warnings ?? [],
    special: build?.special.map(({ item: of, text }) => ({ item: of, text })) ?? [],
    covers: covers(quoted),
    alternative: line.alternative,
    alternativeSet: line.alternativeSet,
    ...(line.alternative ? { insteadOf } : {}),
    ...(resells ? { resale: line.resale === null ? null : exact(line.resale).toString() } : {}),
    origin: line.origin,
    pricedOn: line.pricedOn,
    group: line.groupName,
    ...(taxRate === undefined ? {} : { taxRate }),
    ...(draft && from && (seeCosts || method !== 'costPlus') ? { basis: basisOf(from, seeCosts) } : {}),
    ...(build ? { buildId: build.id, summary: asText(words?.rows ?? []) } : {}),
    ...(buildPrice ? { build: buildPrice } : {}),
    ...(words && words.reached.length > 0 ? { reached: byPlace(words.reached) } : {}),
  };
}

/** What reaches down to each build inside, as one text. */
function byPlace(reached: readonly Reached[]): Record<string, Texts> {
  const places = [...new Set(reached.map(({ place }) => place))];
  return Object.fromEntries(
    places.map((place) => [place, asText(reached.filter((each) => each.place === place))]),
  );
}

/** Rows and their values as one text in each language. */
function asText(rows: readonly Pick<SummaryRow, 'name' | 'value'>[]): Texts {
  const languages = new Set(rows.flatMap((row) => Object.keys(row.name)));
  return Object.fromEntries(
    [...languages].map((language) => [
      language,
      rows.map((row) => `${row.name[language] ?? ''}: ${row.value[language] ?? ''}`).join('; '),
    ]),
  );
}

/** The rates of what is used, agreed or the list's. */
function usageOf(from: QuoteLine | undefined): Pick<LineView, 'usage'> {
  if (from?.offer.is !== 'item' || from.offer.entry?.method !== 'usage') return {};
  const { entry, rates } = from.offer;
  const agreed = withRates(entry, rates);
  return agreed.method === 'usage'
    ? {
        usage: {
          slices: agreed.slices,
          ...(agreed.least === undefined ? {} : { least: agreed.least }),
          typed: rates !== undefined,
        },
      }
    : {};
}

/** What the page needs to price a line again, without costs for those who may not see them. */
function basisOf(
  { offer, mass, terms: { quantity: _quantity, hand: _hand, term: _term, ...granted } }: QuoteLine,
  seeCosts: boolean,
): LineBasis {
  return {
    granted,
    ...(mass === undefined ? {} : { mass }),
    ...(offer.is === 'item' && offer.entry ? { entry: offer.entry } : {}),
    ...(offer.is === 'item' && offer.rates ? { agreed: offer.rates } : {}),
    ...(seeCosts && offer.cost !== undefined ? { cost: offer.cost } : {}),
  };
}

function revisionView(
  known: Reference,
  { number, validUntil, madeAt, madeBy, settledAt, settledBy, lost }: RevisionRow,
  state: ShownState,
): RevisionView {
  return {
    number,
    state,
    validUntil,
    madeAt: (madeAt ?? new Date()).toISOString(),
    madeBy: nameOf(known, madeBy),
    ...(settledAt ? { settledAt: settledAt.toISOString(), settledBy: nameOf(known, settledBy) } : {}),
    ...(lost ? { lost } : {}),
  };
}

/** A price without what it costs and earns. */
export function withoutCost({
  unitCost: _unitCost,
  cost: _cost,
  margin: _margin,
  once,
  subscriptions,
  ...open
}: LinePrice): LinePrice {
  return {
    ...open,
    ...(once ? { once: { list: once.list, net: once.net } } : {}),
    ...(subscriptions ? { subscriptions: subscriptions.map(withoutCost) } : {}),
  };
}

function withoutMargin(whole: Whole): Whole {
  if (whole.is === 'impossible') return whole;
  const { margin: _margin, ...open } = whole;
  return open;
}
