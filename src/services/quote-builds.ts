/** What is put on a quote: plain items, builds, and what is typed as a number of either. */
import { distance } from 'fastest-levenshtein';
import { Op } from 'sequelize';
import type { Texts } from '../core/model';
import { priceBuild, type Typed } from '../core/pricing';
import { specialTariff, typedOf, type NewLineInput, type NewLinesInput, type PutOnQuoteInput, type QuoteView, type ReadNumber, type ReadNumbersInput, type VersionInput } from '../core/quoting';
import { connected, type BuildRow, type ItemRow } from '../data';
import { may, type Actor } from './actor';
import { contextFor, createBuild } from './builds';
import { done, fail, type Failure, type Result } from './failure';
import { findBuild } from './find-build';
import { compiledVersion, engineOf, versionById } from './models';
import { readBack } from './read-back';
import { appendLine, lineOf } from './lines';
import { changeQuote, findQuote, type Draft } from './quotes';
import { fullTariff } from './tariffs';
import { record } from './work';

/** Adds what is typed: the number of a plain item, or a part number, which is read back into a build. */
export async function addByNumber(actor: Actor, id: string, { version, sku, quantity }: NewLineInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, (draft) => addNumber(actor, draft, { sku, quantity, unfinished: 'refused' }));
}

/** Adds many at once, all or none; what is wrong is told with its row. A build with something left to choose comes along, and says so on its line. */
export async function addSeveral(actor: Actor, id: string, { version, rows }: NewLinesInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const wrong: Failure[] = [];
    if (rows.some(({ discount }) => discount !== undefined) && !may(actor, 'discount')) return fail('forbidden', { code: 'refused.permission', params: { permission: 'discount' } });
    for (const [index, { sku, quantity, discount }] of rows.entries()) {
      const hand = discount === undefined ? null : typedOf({ by: 'rate', value: discount });
      const added = await addNumber(actor, draft, { sku, quantity, hand, unfinished: 'kept' });
      if (!added.ok) wrong.push(...added.failures.map((failure) => ({ ...failure, field: `rows.${String(index + 1)}` })));
    }
    return wrong.length > 0 ? fail('invalid', ...wrong) : done(null);
  });
}

/** What happens to a build with something left to choose. */
type Unfinished = 'refused' | 'kept';

async function addNumber(actor: Actor, draft: Draft, { sku: typed, quantity, hand = null, unfinished }: { sku: string; quantity: number; hand?: Typed | null; unfinished: Unfinished }): Promise<Result<null>> {
  const sku = typed.trim().toUpperCase();
  const item = await connected().records.items.findOne({ where: { sku, sold: true } });
  if (item?.kind === 'model') return fail('invalid', { code: 'line.needsBuild', params: { sku: typed }, field: 'sku' });
  if (item && hand && !item.discountable) return fail('invalid', { code: 'line.notDiscountable', params: { sku: item.sku }, field: 'discount' });
  if (item) {
    await appendLine(draft, { sku: item.sku, quantity, hand, buildId: null });
    await record(actor, 'line.added', draft.quote.number, { sku: item.sku, quantity });
    return done(null);
  }
  const read = await readBack(sku, contextFor(draft.revision));
  if (!read.ok) return fail('invalid', unknownNumber(read.failures[0], typed));
  const build = await createBuild(actor, { ...draft, ...read.value });
  return appendBuild(actor, draft, build, { quantity, hand, unfinished });
}

const unknownNumber = (failure: Failure | undefined, typed: string): Failure => (failure && failure.code !== 'number.unknown' ? { ...failure, field: 'sku' } : { code: 'line.unknownItem', params: { sku: typed }, field: 'sku' });

/** Copies a line with all that is typed on it, a build with its decisions, to the place after it. */
export async function copyLine(actor: Actor, id: string, lineId: string, { version }: VersionInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const line = await lineOf(draft, lineId);
    if (!line) return fail('missing', { code: 'line.missing' });
    const { lines, builds } = connected().records;
    const of = line.buildId === null ? null : await builds.findByPk(line.buildId);
    const build = of && (await createBuild(actor, { ...draft, version: await versionById(of.modelVersionId), decisions: of.decisions, special: of.special, date: of.context.date }));
    const { sku, quantity, hand, locked, optional, term, typedPrice, typedCost, alternative, rivals, position, pricedOn, groupName, rates, resale } = line;
    await lines.increment('position', { where: { revisionId: draft.revision.id, position: { [Op.gt]: position } } });
    const copy = await appendLine(draft, { sku, quantity, hand, locked, optional, term, typedPrice, typedCost, alternative, rivals: alternative ? rivals : null, pricedOn, groupName, rates, resale, buildId: build?.id ?? null });
    await lines.update({ position: position + 1 }, { where: { id: copy.id } });
    await record(actor, 'line.copied', draft.quote.number, { sku, from: position });
    return done(null);
  });
}

/** What the numbers of a pasted list are: items, builds that they are read back as, or wrong, with what comes nearest. Nothing is changed. */
export async function readNumbers(actor: Actor, id: string, { numbers }: ReadNumbersInput): Promise<Result<ReadNumber[]>> {
  const quote = await findQuote(actor, id);
  const revision = quote && (await connected().records.revisions.findOne({ where: { quoteId: id }, order: [['number', 'DESC']] }));
  if (!quote || !revision) return fail('missing', { code: 'quote.missing' });
  const { items, models } = connected().records;
  const sold = await items.findAll({ where: { sold: true }, raw: true });
  const known = new Map(sold.map((item) => [item.sku, item]));
  const heads = new Map((await models.findAll({ raw: true })).map((model) => [model.id, model.sku]));
  // The same number is mostly there more than once.
  const read = new Map<string, ReadNumber>();
  for (const typed of numbers) {
    const number = typed.trim().toUpperCase();
    if (read.has(number)) continue;
    const item = known.get(number);
    if (item && item.kind !== 'model') {
      read.set(number, { is: 'item', sku: item.sku, name: item.name });
      continue;
    }
    const back = item ? null : await readBack(number, contextFor(revision));
    if (back?.ok) {
      const { version, decisions } = back.value;
      const complete = engineOf(version, contextFor(revision)).state({ decisions }).complete;
      read.set(number, { is: 'build', name: known.get(heads.get(version.modelId) ?? '')?.name ?? {}, complete });
      continue;
    }
    const { code, params = {} } = item ? { code: 'line.needsBuild', params: { sku: typed } } : unknownNumber(back?.ok === false ? back.failures[0] : undefined, typed);
    const nearest = code === 'line.unknownItem' ? nearestOf(number, sold) : undefined;
    read.set(number, { is: 'wrong', code, params, ...(nearest ? { nearest } : {}) });
  }
  return done(numbers.map((typed) => read.get(typed.trim().toUpperCase()) as ReadNumber));
}

/** The number that the fewest keystrokes lead to; none where they would change half of it. */
function nearestOf(number: string, sold: readonly ItemRow[]): { number: string; name: Texts } | undefined {
  let best: { item: ItemRow; away: number } | undefined;
  for (const item of sold) {
    const away = distance(number, item.sku);
    if (item.kind !== 'model' && away * 2 < number.length && (!best || away < best.away)) best = { item, away };
  }
  return best && { number: best.item.sku, name: best.item.name };
}

/** Puts a complete build on its quote as a line. */
export async function putOnQuote(actor: Actor, id: string, { version, quantity }: PutOnQuoteInput): Promise<Result<QuoteView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  return changeQuote(actor, found.value.build.quoteId, version, async (draft) => {
    const again = await findBuild(actor, id);
    return again.ok ? appendBuild(actor, draft, again.value.build, { quantity }) : again;
  });
}

/** Adds a line for a build; one that clashes, has something to do, or has no price is refused. */
export async function appendBuild(actor: Actor, draft: Draft, build: BuildRow, { quantity, hand = null, unfinished = 'refused' }: { quantity: number; hand?: Typed | null; unfinished?: Unfinished }): Promise<Result<null>> {
  const { lines, models } = connected().records;
  if (await lines.findOne({ where: { buildId: build.id } })) return fail('conflict', { code: 'build.onQuote', params: { number: draft.quote.number } });
  const modelVersion = await versionById(build.modelVersionId);
  const { outcome } = build;
  if (outcome.clashes > 0) return fail('invalid', { code: 'line.clash', params: { count: outcome.clashes } });
  if (!outcome.complete && unfinished === 'refused') return fail('invalid', { code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
  const tariff = specialTariff(await fullTariff(draft.revision.priceList, build.context.date), build.special);
  const { unpriced } = priceBuild(compiledVersion(modelVersion), outcome.values, tariff);
  if (unpriced.length > 0) return fail('invalid', { code: 'line.unpriced', params: { items: unpriced.join(', ') } });
  const head = await models.findByPk(modelVersion.modelId);
  await appendLine(draft, { sku: head?.sku ?? '', quantity, hand, buildId: build.id, pricedOn: build.context.date });
  await record(actor, 'line.added', draft.quote.number, { partNumber: outcome.partNumber, quantity });
  return done(null);
}
