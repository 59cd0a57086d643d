/** The lines of a quote, priced on the server from what is kept of them. */
import { Exact, exact } from '../core/exact';
import { specialTariff, type LineProblem } from '../core/quoting';
import { costOf, priceBuild, priceQuote, usualMonths, type BuildPrice, type LinePrice, type Offer, type PricedLine, type PriceEntry, type QuoteLine, type Recurrence, type Tariff, type Whole } from '../core/pricing';
import { making } from '../core/production';
import { connected, type BuildRow, type ItemRow, type LineRow, type PriceListRow, type QuoteRow, type RevisionRow } from '../data';
import { buyerOf, grantsFor } from './grants';
import { compiledVersion, versionById } from './models';
import { entriesOf, fullTariff } from './tariffs';

export interface QuoteParts {
  quote: QuoteRow;
  revision: RevisionRow;
  lines: LineRow[];
  builds: Map<string, BuildRow>;
  /** The list that it is priced from. */
  list: PriceListRow;
}

/** What a quote is priced from, in its newest revision or in the one of a number. */
export async function partsOf(quote: QuoteRow, number?: number): Promise<QuoteParts> {
  const { revisions, lines, builds, priceLists } = connected().records;
  const revision = await revisions.findOne({ where: { quoteId: quote.id, ...(number === undefined ? {} : { number }) }, order: [['number', 'DESC']] });
  const list = revision && (await priceLists.findByPk(revision.priceList));
  if (!revision || !list) throw new Error(`quote ${quote.number} has no revision`);
  const rows = await lines.findAll({ where: { revisionId: revision.id }, order: [['position', 'ASC']] });
  const own = await builds.findAll({ where: { revisionId: revision.id } });
  return { quote, revision, lines: rows, builds: new Map(own.map((build) => [build.id, build])), list };
}

/** One line as priced now, or as frozen when it was sent or accepted; with cost. */
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

/** What of a build recurs without a term of its model's: for the longest of the periods, and at least as long as any of it is sold for. */
function recursIn({ parts }: BuildPrice): Recurrence | undefined {
  const open = parts.flatMap(({ recurs }) => (recurs && recurs.months === undefined ? [recurs] : []));
  const leastMonths = Math.max(0, ...open.map((each) => each.leastMonths ?? 0));
  return open.length === 0 ? undefined : { baseMonths: Math.max(...open.map((each) => each.baseMonths)), ...(leastMonths > 0 ? { leastMonths } : {}) };
}

/** A price list as it was on a day. */
interface Priced {
  tariff: Tariff;
  entries: Awaited<ReturnType<typeof entriesOf>>;
}

/** The list on each of the days that lines stand on. */
async function listOn(code: string, lines: readonly LineRow[]): Promise<Map<string, Priced>> {
  const days = [...new Set(lines.map(({ pricedOn }) => pricedOn))];
  const skus = [...new Set(lines.map(({ sku }) => sku))];
  const found = new Map<string, Priced>();
  for (const day of days) found.set(day, { tariff: await fullTariff(code, day), entries: await entriesOf(code, day, skus) });
  return found;
}

export const priceLines = async (parts: QuoteParts): Promise<QuotedLine[]> => (await priceAll(parts)).lines;

export async function priceAll({ quote, revision, lines, builds, list }: QuoteParts): Promise<Quoted> {
  const { items } = connected().records;
  const skus = lines.map((line) => line.sku);
  const granted = await grantsFor(await buyerOf(quote, revision));
  const rows = new Map((await items.findAll({ where: { sku: skus }, raw: true })).map((item) => [item.sku, item]));
  const onDay = await listOn(list.code, lines);
  const open: { line: LineRow; priced: QuoteLine; parts: BuildPrice | undefined; recurs: QuoteLine['recurs'] }[] = [];
  for (const line of lines) {
    if (line.frozen) continue;
    const item = rows.get(line.sku) as ItemRow;
    const build = line.buildId ? builds.get(line.buildId) : undefined;
    const { tariff, entries } = onDay.get(line.pricedOn) as Priced;
    const { entry: inList, every } = entries.get(line.sku) ?? {};
    const [offer, parts] = build ? await buildOffer(build, tariff) : [itemOffer(line, item, inList, tariff), undefined];
    const recurs = parts ? recursIn(parts) : every;
    // What recurs runs for its base period from the day of its prices on, as long as nobody says otherwise.
    const term = recurs && (line.term ?? { start: line.pricedOn, months: usualMonths(recurs), days: 0 });
    const priced: QuoteLine = {
      id: line.id, sku: line.sku, family: item.family, counts: !line.alternative && !line.optional, locked: line.locked, discountable: item.discountable, offer,
      terms: { quantity: line.quantity, day: line.pricedOn, ...granted(line.sku, item.family), ...(line.hand ? { hand: line.hand } : {}), ...(build && term ? { term } : {}) },
      ...massOf(item, build),
      ...(every && term && !build ? { recurs: { every, term } } : {}),
    };
    open.push({ line, priced, parts, recurs: recurs && term && { every: recurs, term } });
  }
  const { lines: figures, whole } = priceQuote(open.map((each) => each.priced), { decimals: list.decimals, ...(revision.whole ? { whole: revision.whole } : {}) });
  const worked = new Map(open.map((each, index) => [each.line.id, { ...each, figures: figures[index] as PricedLine }]));
  return {
    comes: lines.some((line) => line.frozen) ? settledWhole(lines, rows) : whole,
    lines: lines.map((line): QuotedLine => {
      const item = rows.get(line.sku) as ItemRow;
      const build = line.buildId ? builds.get(line.buildId) : undefined;
      const method = build ? undefined : onDay.get(line.pricedOn)?.entries.get(line.sku)?.entry.method;
      if (line.frozen) return { line, item, build, price: line.frozen.price, parts: line.frozen.build, problems: [], method, recurs: undefined, from: undefined };
      const { priced, parts, recurs, figures: { price, problems } } = worked.get(line.id) as NonNullable<ReturnType<typeof worked.get>>;
      return { line, item, build, price, parts, problems: [...(build ? problemsOf(build) : []), ...problems], method, recurs, from: priced };
    }),
  };
}

/** What the whole-quote discount came to when the quote was settled. */
function settledWhole(lines: readonly LineRow[], items: ReadonlyMap<string, ItemRow>): Whole {
  const sum = (of: (line: LineRow) => string | undefined) => lines.reduce((all, line) => (line.alternative || line.optional ? all : all.plus(of(line) ?? 0) as Exact), new Exact(0));
  const base = sum((line) => (line.locked || !items.get(line.sku)?.discountable ? undefined : (line.frozen?.price.before ?? line.frozen?.price.net)));
  const [amount, net, cost] = [sum((line) => line.frozen?.price.share), sum((line) => line.frozen?.price.net), sum((line) => line.frozen?.price.cost)];
  return { is: 'spread', base: base.toString(), rate: base.isZero() ? '0' : amount.div(base).toString(), amount: amount.toString(), net: net.toString(), ...(net.isZero() ? {} : { margin: net.minus(cost).div(net).toString() }) };
}

/** Of one piece: the item's, or the figure that the build's model has for it. */
function massOf(item: ItemRow, build: BuildRow | undefined): { mass?: string } {
  const mass = build ? build.outcome.mass : item.mass;
  return mass === null || mass === undefined ? {} : { mass: exact(mass).toString() };
}

async function buildOffer(build: BuildRow, tariff: Tariff): Promise<[Offer, BuildPrice]> {
  const model = compiledVersion(await versionById(build.modelVersionId ?? undefined));
  const { values } = build.outcome;
  const own = specialTariff(tariff, build.special);
  const parts = priceBuild(model, values, own);
  const cost = costOf(making(model, values), parts.parts, own);
  return [{ is: 'build', parts: parts.parts, unpriced: parts.unpriced, ...(cost ? { cost } : {}) }, parts];
}

function itemOffer(line: LineRow, item: ItemRow, entry: PriceEntry | undefined, { costs }: Tariff): Offer {
  // What is made up for a line costs what is said there, where the list leaves its price to it.
  const cost = entry?.method === 'hand' && line.typedCost !== null ? exact(line.typedCost).toString() : costs?.[line.sku];
  return { is: 'item', name: item.name, ...(entry ? { entry } : {}), ...(line.rates ? { rates: line.rates } : {}), ...(line.typedPrice === null ? {} : { typed: exact(line.typedPrice).toString() }), ...(cost === undefined ? {} : { cost }) };
}

/** The lines that count: an alternative stands beside another line, an optional one beside all. */
export const counted = (priced: readonly QuotedLine[]): QuotedLine[] => priced.filter(({ line }) => !line.alternative && !line.optional);

function problemsOf({ outcome }: BuildRow): LineProblem[] {
  const problems: LineProblem[] = [];
  if (outcome.clashes > 0) problems.push({ code: 'line.clash', params: { count: outcome.clashes } });
  else if (!outcome.complete) problems.push({ code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
  const unpassed = outcome.warnings.filter((warning) => !warning.passed).length;
  if (unpassed > 0) problems.push({ code: 'line.warning', params: { count: unpassed } });
  return problems;
}
