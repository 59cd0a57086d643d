/** A quote with every figure worked out anew on the server, as one actor may see it. */
import type { Transaction } from 'sequelize';
import { roundHalfUp, exact } from '../core/exact';
import { specialTariff, type LineProblem, type LineView, type QuoteView } from '../core/quoting';
import { costOf, priceBuild, sumLines, walk, type BuildPrice, type LinePrice, type Tariff } from '../core/pricing';
import { making } from '../core/production';
import type { Texts } from '../core/model';
import { connected, type BuildRow, type ItemRow, type LineRow, type QuoteRow, type RevisionRow } from '../data';
import { may, type Actor } from './actor';
import { agreementsOf } from './agreements';
import { summarise } from './build-summary';
import { today } from './clock';
import { compiledVersion, versionById } from './models';
import { fullTariff } from './tariffs';

export interface QuoteParts {
  quote: QuoteRow;
  revision: RevisionRow;
  lines: LineRow[];
  builds: Map<string, BuildRow>;
  tariff: Tariff;
}

export async function partsOf(quote: QuoteRow, transaction: Transaction | null = null): Promise<QuoteParts> {
  const { revisions, lines, builds } = connected().records;
  const revision = await revisions.findOne({ where: { quoteId: quote.id }, order: [['number', 'DESC']], transaction });
  if (!revision) throw new Error(`quote ${quote.number} has no revision`);
  const rows = await lines.findAll({ where: { revisionId: revision.id }, order: [['position', 'ASC']], transaction });
  const own = await builds.findAll({ where: { quoteId: quote.id }, transaction });
  return { quote, revision, lines: rows, builds: new Map(own.map((build) => [build.id, build])), tariff: await fullTariff(revision.priceList, transaction ?? undefined) };
}

/** One line as priced now, or as frozen when it was accepted; with cost. */
export interface PricedLine {
  line: LineRow;
  item: ItemRow;
  build: BuildRow | undefined;
  price: LinePrice;
  parts: BuildPrice | undefined;
  problems: LineProblem[];
}

export async function priceLines({ revision, lines, builds, tariff }: QuoteParts, transaction: Transaction | null = null): Promise<PricedLine[]> {
  const { items } = connected().records;
  const agreed = await agreementsOf(revision.customer.class, today(), transaction);
  const rows = new Map((await items.findAll({ where: { sku: lines.map((line) => line.sku) }, transaction })).map((item) => [item.sku, item]));
  const priced: PricedLine[] = [];
  for (const line of lines) {
    const item = rows.get(line.sku) as ItemRow;
    const build = line.buildId ? builds.get(line.buildId) : undefined;
    if (line.frozen) {
      priced.push({ line, item, build, price: line.frozen.price, parts: line.frozen.build, problems: [] });
      continue;
    }
    const agreement = agreed(item.family);
    const terms = { quantity: line.quantity, discount: exact(line.discount).toString(), ...(agreement ? { agreement } : {}) };
    if (build) {
      const model = compiledVersion(await versionById(build.modelVersionId, transaction ?? undefined));
      const { values } = build.outcome;
      const own = specialTariff(tariff, build.special);
      const parts = priceBuild(model, values, own);
      const cost = costOf(making(model, values), own);
      priced.push({ line, item, build, price: walk(parts.parts, terms, tariff.decimals, cost), parts, problems: problemsOf(build, parts.unpriced) });
    } else {
      const unit = tariff.prices[line.sku];
      const part = { id: line.sku, kind: 'part' as const, name: item.name, item: line.sku, amount: unit ?? '0' };
      const problems: LineProblem[] = unit === undefined ? [{ code: 'line.unpriced', params: { items: line.sku } }] : [];
      priced.push({ line, item, build: undefined, price: walk([part], terms, tariff.decimals, plainCost(tariff.costs?.[line.sku])), parts: undefined, problems });
    }
  }
  return priced;
}

const plainCost = (cost: string | undefined) => (cost === undefined ? undefined : { unit: cost, once: '0' });

/** The lines that count: an alternative stands beside another line. */
export const counted = (priced: readonly PricedLine[]): PricedLine[] => priced.filter(({ line }) => !line.alternative);

function problemsOf({ outcome }: BuildRow, unpriced: string[]): LineProblem[] {
  const problems: LineProblem[] = [];
  if (outcome.clashes > 0) problems.push({ code: 'line.clash', params: { count: outcome.clashes } });
  else if (!outcome.complete) problems.push({ code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
  const unpassed = outcome.warnings.filter((warning) => !warning.passed).length;
  if (unpassed > 0) problems.push({ code: 'line.warning', params: { count: unpassed } });
  if (unpriced.length > 0) problems.push({ code: 'line.unpriced', params: { items: unpriced.join(', ') } });
  return problems;
}

export async function viewOf(actor: Actor, quote: QuoteRow, transaction: Transaction | null = null): Promise<QuoteView> {
  const { users, orders } = connected().records;
  const parts = await partsOf(quote, transaction);
  const { revision, tariff } = parts;
  const priced = await priceLines(parts, transaction);
  const seeCosts = may(actor, 'costs');
  const shown = (price: LinePrice): LinePrice => (seeCosts ? price : withoutCost(price));
  const names = new Map((await users.findAll({ attributes: ['id', 'name'], transaction, raw: true })).map((user) => [user.id, user.name]));
  const order = await orders.findOne({ where: { quoteId: quote.id }, transaction });
  const draft = revision.state === 'draft';
  const lines = await Promise.all(
    priced.map(async ({ line, item, build, price, parts: buildPrice, problems }): Promise<LineView> => ({
      id: line.id,
      position: line.position,
      sku: line.sku,
      name: item.name,
      partNumber: build?.outcome.partNumber ?? line.sku,
      quantity: line.quantity,
      discount: exact(line.discount).toString(),
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

export function withoutCost({ unitCost: _unitCost, cost: _cost, margin: _margin, ...open }: LinePrice): LinePrice {
  return open;
}

export const rounded = (amount: string, decimals: number): string => roundHalfUp(exact(amount), decimals).toString();
