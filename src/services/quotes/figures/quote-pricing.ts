/**
 * The lines of a quote, priced on the server from what is kept of them. What is as it was before is not
 * worked out again.
 */
import { Exact, exact } from '../../../core/exact';
import type { LineProblem } from '../../../contract';
import {
  pricer,
  usualMonths,
  type BuildPrice,
  type LinePrice,
  type Offer,
  type PricedLine,
  type PriceEntry,
  type QuoteLine,
  type Recurrence,
  type Tariff,
  type Whole,
} from '../../../core/pricing';
import type { BuildRow, FreightRateRow, ItemRow, LineRow, PriceListRow } from '../../../data';
import { askEngine, askPatiently, tariffKey } from '../../kernel/engines';
import { grantsFor, type Granted } from '../../settings/grants';
import { buyerOf, stateOf, type QuoteBase, type QuoteState } from '../quote-state';
import { freightOn } from '../../settings/in-force';
import { reference } from '../../settings/reference-data';
import type { Supposed } from '../../settings/supposed';
import { entryOn, fullTariff, listOf } from '../../settings/tariffs';
import { deliveredTo } from '../../settings/addressed';
import { Recent } from '../../kernel/threads/recent';

/** What a quote is priced from. */
export interface QuoteParts extends QuoteState {
  /** The list that it is priced from. */
  list: PriceListRow;
}

/** All that the lines of a revision are priced from. */
export async function partsIn(state: QuoteState): Promise<QuoteParts> {
  return { ...state, list: listOf(await reference(), state.revision.priceList) };
}

/** What a quote is priced from, in its newest revision or in the one of a number. */
export async function partsOf(quote: QuoteBase, number?: number): Promise<QuoteParts> {
  const state = await stateOf(quote, number);
  if (!state) throw new Error(`quote ${quote.number} has no revision`);
  return partsIn(state);
}

/**
 * One line as priced now, or as frozen when it was sent or accepted; with cost. The same object while nothing
 * of it changes.
 */
export interface QuotedLine {
  line: LineRow;
  item: ItemRow;
  build: BuildRow | undefined;
  price: LinePrice;
  parts: BuildPrice | undefined;
  problems: LineProblem[];
  /** How the item is priced in the list, where it is a plain one. */
  method: PriceEntry['method'] | undefined;
  /** What of it recurs with a term that the line says. */
  recurs: QuoteLine['recurs'];
  /** What it was priced from; absent where it is frozen. */
  from: QuoteLine | undefined;
}

/** Every line, and what is typed for the whole quote. */
export interface Quoted {
  lines: QuotedLine[];
  comes: Whole;
}

/** Worked out to see what would be: with the entries of a price change, or as it is, by whoever can wait. */
export interface Supposing {
  change?: Supposed;
}

function memoryFor(revision: string, lines: number, supposing: Supposing | undefined): KeptPrices {
  if (supposing) return new KeptPrices();
  const memory = kept.get(revision) ?? new KeptPrices();
  kept.set(revision, memory, lines + 10);
  return memory;
}

type BuildOffer = { offer: Offer; parts: BuildPrice };

/** A line made ready to be priced, and what it was made from. */
interface Ready {
  from: readonly unknown[];
  line: LineRow;
  priced: QuoteLine;
  parts: BuildPrice | undefined;
  recurs: QuoteLine['recurs'];
  method: PriceEntry['method'] | undefined;
}

/** What is remembered of a revision between two times it is priced. */
class KeptPrices {
  readonly price = pricer();
  readonly ready = new Map<string, Ready>();
  readonly offers = new Map<string, BuildOffer>();
  readonly quoted = new Map<string, { from: Ready; figures: PricedLine; quoted: QuotedLine }>();
}

const kept = new Recent<KeptPrices>(20_000);

/**
 * What of a build recurs without a term of its model's: for the longest of the periods, and at least as long
 * as any of it is sold for.
 */
function recursIn({ parts }: BuildPrice): Recurrence | undefined {
  const open = parts.flatMap(({ recurs }) => (recurs && recurs.months === undefined ? [recurs] : []));
  const leastMonths = Math.max(0, ...open.map((each) => each.leastMonths ?? 0));
  return open.length === 0
    ? undefined
    : {
        baseMonths: Math.max(...open.map((each) => each.baseMonths)),
        ...(leastMonths > 0 ? { leastMonths } : {}),
      };
}

/** Its lines with their prices. */
export const priceLines = async (parts: QuoteParts): Promise<QuotedLine[]> => (await priceAll(parts)).lines;

/** Its lines, sums and whole-quote discount. With a price change supposed, nothing is remembered of it. */
export async function priceAll(parts: QuoteParts, supposing?: Supposing): Promise<Quoted> {
  const { quote, revision, lines, builds, list } = parts;
  const known = await reference();
  const { items, stamp } = known;
  const goesTo = deliveredTo(revision.customer);
  const memory = memoryFor(revision.id, lines.length, supposing);
  const supposed = supposing?.change;
  const granted = remembering(await grantsFor(buyerOf(quote, revision)));
  const offers = await offersOf(parts, memory, supposing);
  const days = new Map<string, { tariff: Tariff; entry: Awaited<ReturnType<typeof entryOn>> }>();
  for (const day of new Set(lines.map(({ pricedOn }) => pricedOn)))
    days.set(day, {
      tariff: await fullTariff(list.code, day, supposed),
      entry: await entryOn(list.code, day, supposed),
    });
  // From here on nothing is waited for: what is remembered belongs to one computation.
  const ready = lines.flatMap((line): Ready[] => {
    if (line.frozen) return [];
    const item = items.get(line.sku) as ItemRow;
    const build = line.buildId ? builds.get(line.buildId) : undefined;
    const { tariff, entry } = days.get(line.pricedOn) as NonNullable<ReturnType<typeof days.get>>;
    const offer = build && offers.get(build.id);
    const listed = entry(line.sku);
    const freight =
      listed?.entry.method === 'formula' ? freightOn(known, list.code, goesTo, line.pricedOn) : undefined;
    const from = [
      line,
      build,
      offer,
      tariff,
      stamp,
      quote.customerId,
      quote.dealer?.id,
      revision.customer.class,
      freight,
    ];
    const had = memory.ready.get(line.id);
    const made =
      had && sameParts(had.from, from)
        ? had
        : {
            from,
            ...readyLine(
              line,
              item,
              build,
              offer,
              listed,
              tariff,
              granted(line.sku, item.family, line.pricedOn),
              freight,
            ),
          };
    memory.ready.set(line.id, made);
    return [made];
  });
  forget(memory, lines);
  const { lines: figures, whole } = memory.price(
    ready.map((each) => each.priced),
    { decimals: list.decimals, ...(revision.whole ? { whole: revision.whole } : {}) },
  );
  const quotedBy = new Map(
    ready.map((each, index) => [
      each.line.id,
      quotedLine(
        memory,
        each,
        figures[index] as PricedLine,
        items.get(each.line.sku) as ItemRow,
        each.line.buildId ? builds.get(each.line.buildId) : undefined,
      ),
    ]),
  );
  return {
    comes: lines.some((line) => line.frozen) ? settledWhole(lines, items) : whole,
    lines: lines.map((line): QuotedLine => {
      if (!line.frozen) return quotedBy.get(line.id) as QuotedLine;
      const build = line.buildId ? builds.get(line.buildId) : undefined;
      const method = build ? undefined : days.get(line.pricedOn)?.entry(line.sku)?.entry.method;
      return {
        line,
        item: items.get(line.sku) as ItemRow,
        build,
        price: line.frozen.price,
        parts: line.frozen.build,
        problems: [],
        method,
        recurs: undefined,
        from: undefined,
      };
    }),
  };
}

const sameParts = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.every((each, index) => each === b[index]);

/** What is granted by item is asked for once for all lines of the item. */
function remembering(
  granted: (sku: string, family: string, day: string) => Granted,
): (sku: string, family: string, day: string) => Granted {
  const known = new Map<string, Granted>();
  return (sku, family, day) => {
    const key = `${sku} ${day}`;
    const found = known.get(key) ?? granted(sku, family, day);
    known.set(key, found);
    return found;
  };
}

/** Lets go of what belongs to lines that are gone. */
function forget(memory: KeptPrices, lines: readonly LineRow[]): void {
  if (memory.ready.size <= lines.length + 50) return;
  const present = new Set(lines.map(({ id }) => id));
  for (const id of memory.ready.keys())
    if (!present.has(id)) {
      memory.ready.delete(id);
      memory.quoted.delete(id);
    }
}

/**
 * What the builds on lines list at and cost; asked of the engines where it is not known of this very state of
 * them.
 */
async function offersOf(
  { lines, builds, list, tagOf }: QuoteParts,
  memory: KeptPrices,
  supposing: Supposing | undefined,
): Promise<Map<string, BuildOffer>> {
  const askFor = supposing ? askPatiently : askEngine;
  const found = new Map<string, BuildOffer>();
  const asked = new Map<string, { key: string; build: BuildRow }[]>();
  for (const { buildId, frozen, pricedOn } of lines) {
    const build = buildId && !frozen ? builds.get(buildId) : undefined;
    if (!build) continue;
    const tariff = await tariffKey(list.code, pricedOn, supposing?.change);
    const key = `${build.id} ${tagOf(build.id)} ${tariff}`;
    const known = memory.offers.get(key);
    if (known) found.set(build.id, known);
    else asked.set(tariff, [...(asked.get(tariff) ?? []), { key, build }]);
  }
  if (asked.size === 0) return found;
  for (const [tariff, own] of asked) {
    const offers = await askFor('offers', {
      tariff,
      builds: own.map(({ build }) => ({
        version: build.modelVersionId,
        values: build.outcome.values,
        special: build.special,
      })),
    });
    own.forEach(({ key, build }, index) => {
      const offer = offers[index] as BuildOffer;
      memory.offers.set(key, offer);
      found.set(build.id, offer);
    });
  }
  // Older states of the same builds are not asked for again.
  const current = new Set(found.values());
  for (const [key, offer] of memory.offers)
    if (!current.has(offer) && memory.offers.size > found.size + 50) memory.offers.delete(key);
  return found;
}

function readyLine(
  line: LineRow,
  item: ItemRow,
  build: BuildRow | undefined,
  offered: BuildOffer | undefined,
  listed: { entry: PriceEntry; every?: Recurrence } | undefined,
  tariff: Tariff,
  granted: Granted,
  freight: FreightRateRow | undefined,
): Omit<Ready, 'from'> {
  const { entry, every } = listed ?? {};
  const offer = offered ? offered.offer : itemOffer(line, item, entry, tariff, freight);
  const recurs = offered ? recursIn(offered.parts) : every;
  // What recurs runs for its base period from the day of its prices on, as long as nobody says otherwise.
  const term = recurs && (line.term ?? { start: line.pricedOn, months: usualMonths(recurs), days: 0 });
  return {
    line,
    parts: offered?.parts,
    recurs: recurs && term && { every: recurs, term },
    method: build ? undefined : entry?.method,
    priced: {
      id: line.id,
      sku: line.sku,
      family: item.family,
      counts: !line.alternative && !line.optional,
      locked: line.locked,
      discountable: item.discountable,
      offer,
      terms: {
        quantity: line.quantity,
        day: line.pricedOn,
        ...granted,
        ...(line.hand ? { hand: line.hand } : {}),
        ...(build && term ? { term } : {}),
      },
      ...massOf(item, build),
      ...(every && term && !build ? { recurs: { every, term } } : {}),
    },
  };
}

function quotedLine(
  { quoted }: KeptPrices,
  from: Ready,
  figures: PricedLine,
  item: ItemRow,
  build: BuildRow | undefined,
): QuotedLine {
  const had = quoted.get(from.line.id);
  if (had?.from === from && had.figures === figures) return had.quoted;
  const { line, parts, recurs, method, priced } = from;
  const made = {
    line,
    item,
    build,
    price: figures.price,
    parts,
    problems: [...(build ? problemsOf(build) : []), ...figures.problems],
    method,
    recurs,
    from: priced,
  };
  quoted.set(line.id, { from, figures, quoted: made });
  return made;
}

/** What the whole-quote discount came to when the quote was settled. */
function settledWhole(lines: readonly LineRow[], items: ReadonlyMap<string, ItemRow>): Whole {
  const sum = (of: (line: LineRow) => string | undefined) =>
    lines.reduce(
      (all, line) => (line.alternative || line.optional ? all : all.plus(of(line) ?? 0)),
      new Exact(0),
    );
  const base = sum((line) =>
    line.locked || !items.get(line.sku)?.discountable
      ? undefined
      : (line.frozen?.price.before ?? line.frozen?.price.net),
  );
  const [amount, net, cost] = [
    sum((line) => line.frozen?.price.share),
    sum((line) => line.frozen?.price.net),
    sum((line) => line.frozen?.price.cost),
  ];
  return {
    is: 'spread',
    base: base.toString(),
    rate: base.isZero() ? '0' : amount.div(base).toString(),
    amount: amount.toString(),
    net: net.toString(),
    ...(net.isZero() ? {} : { margin: net.minus(cost).div(net).toString() }),
  };
}

/** Of one piece: the item's, or the figure that the build's model has for it. */
function massOf(item: ItemRow, build: BuildRow | undefined): { mass?: string } {
  const mass = build ? build.outcome.mass : item.mass;
  return mass === null || mass === undefined ? {} : { mass: exact(mass).toString() };
}

function itemOffer(
  line: LineRow,
  item: ItemRow,
  entry: PriceEntry | undefined,
  { costs }: Tariff,
  freight: FreightRateRow | undefined,
): Offer {
  // What is made up for a line costs what is said there, where the list leaves its price to it.
  const cost =
    entry?.method === 'hand' && line.typedCost !== null
      ? exact(line.typedCost).toString()
      : costs?.[line.sku];
  return {
    is: 'item',
    name: item.name,
    ...(entry ? { entry } : {}),
    ...(line.rates ? { rates: line.rates } : {}),
    ...(line.typedPrice === null ? {} : { typed: exact(line.typedPrice).toString() }),
    ...(cost === undefined ? {} : { cost }),
    ...(freight
      ? {
          freight: {
            base: exact(freight.base).toString(),
            perKg: exact(freight.perKg).toString(),
            least: exact(freight.least).toString(),
          },
        }
      : {}),
  };
}

/** The lines that count: an alternative stands beside another line, an optional one beside all. */
export const counted = (priced: readonly QuotedLine[]): QuotedLine[] =>
  priced.filter(({ line }) => !line.alternative && !line.optional);

function problemsOf({ outcome }: BuildRow): LineProblem[] {
  const problems: LineProblem[] = [];
  if (outcome.clashes > 0) problems.push({ code: 'line.clash', params: { count: outcome.clashes } });
  else if (!outcome.complete)
    problems.push({ code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
  const unpassed = outcome.warnings.filter((warning) => !warning.passed).length;
  if (unpassed > 0) problems.push({ code: 'line.warning', params: { count: unpassed } });
  return problems;
}
