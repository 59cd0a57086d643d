/** What is put on a quote: plain items and builds, by their numbers or as they are. */
import { Op } from 'sequelize';
import type { Typed } from '../../../core/pricing';
import {
  typedOf,
  type NewLineInput,
  type NewLinesInput,
  type PutOnQuoteInput,
  type QuoteView,
  type VersionInput,
} from '../../../contract';
import { connected, type BuildRow, type ItemRow, type LineRow } from '../../../data';
import { may, type Actor } from '../../access/actor';
import { createBuild } from '../../builds/begin';
import { contextFor } from '../../builds/home';
import { askEngine, tariffKey } from '../../kernel/engines';
import { done, fail, type Failure, type Result } from '../../kernel/failure';
import { findBuild } from '../../builds/find-build';
import { appendLine, appendLines, lineOf, type NewLine } from './lines';
import { versionById } from '../../catalogue/models';
import { soldAs, unknownNumber } from './numbers';
import { changeQuote, type Draft } from '../quotes';
import { refusedInside, saleOf, wrongQuantity } from '../../items/selling';
import { readAll, readBack } from '../../builds/read-back';
import { reference } from '../../settings/reference-data';
import { record } from '../../kernel/unit-of-work';

/** Adds what is typed: the number of a plain item, or a part number, which is read back into a build. */
export async function addByNumber(
  actor: Actor,
  id: string,
  { version, sku, quantity }: NewLineInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, (draft) =>
    addNumber(actor, draft, { sku, quantity, unfinished: 'refused' }),
  );
}

/**
 * Adds many at once, all or none; what is wrong is told with its row. A build with something left to choose
 * comes along, and says so on its line.
 */
export async function addSeveral(
  actor: Actor,
  id: string,
  { version, rows }: NewLinesInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    if (rows.some(({ discount }) => discount !== undefined) && !may(actor, 'discount'))
      return fail('forbidden', { code: 'refused.permission', params: { permission: 'discount' } });
    const { items } = await reference();
    const sale = saleOf(actor, draft.revision);
    const typed = rows.map(({ sku, quantity, discount }) => ({
      sku,
      quantity,
      item: soldAs(items, sku, sale),
      hand: discount === undefined ? null : typedOf({ by: 'rate', value: discount }),
    }));
    const wrong: Failure[] = [];
    const refuse = (index: number, failures: readonly Failure[]) =>
      wrong.push(...failures.map((failure) => ({ ...failure, field: `rows.${String(index + 1)}` })));
    const numbers = [...new Set(typed.flatMap(({ sku, item }) => (item ? [] : [sku])))];
    const read = new Map(
      (await readAll(numbers, contextFor(draft.revision))).map((result, index) => [
        numbers[index] as string,
        result,
      ]),
    );
    const lines: NewLine[] = [];
    for (const [index, { sku, quantity, item, hand }] of typed.entries()) {
      if (item) {
        const bad = problemWith(item, sku, hand, quantity);
        if (bad) refuse(index, [bad]);
        else lines.push({ sku: item.sku, quantity, hand, buildId: null });
        continue;
      }
      const back = read.get(sku);
      const bad = back?.ok
        ? wrongQuantity({ sku, unit: 'pc' }, quantity)
        : unknownNumber({ items, sale, actor }, back?.failures[0], sku);
      if (!back?.ok || bad) {
        refuse(index, bad ? [bad] : []);
        continue;
      }
      const build = await createBuild(actor, { home: { of: 'quote', ...draft }, ...back.value });
      const ready = await readyLine(actor, draft, build, 'kept');
      if (ready.ok) lines.push({ ...ready.value, quantity, hand });
      else refuse(index, ready.failures);
    }
    if (wrong.length > 0) return fail('invalid', ...wrong);
    await appendLines(draft, lines);
    await record(actor, 'lines.added', draft.quote.number, {
      lines: lines.map(({ sku, quantity }) => ({ sku, quantity })),
    });
    return done(null);
  });
}

/** Why an item cannot be put on a quote as it is typed. */
function problemWith(
  item: ItemRow,
  typed: string,
  hand: Typed | null,
  quantity: number,
): Failure | undefined {
  if (item.kind === 'model') return { code: 'line.needsBuild', params: { sku: typed }, field: 'sku' };
  if (hand && !item.discountable)
    return { code: 'line.notDiscountable', params: { sku: item.sku }, field: 'discount' };
  return wrongQuantity(item, quantity);
}

/** What happens to a build with something left to choose. */
type Unfinished = 'refused' | 'kept';

async function addNumber(
  actor: Actor,
  draft: Draft,
  {
    sku: typed,
    quantity,
    hand = null,
    unfinished,
  }: { sku: string; quantity: number; hand?: Typed | null; unfinished: Unfinished },
): Promise<Result<null>> {
  const { items } = await reference();
  const sale = saleOf(actor, draft.revision);
  const item = soldAs(items, typed, sale);
  const bad = item && problemWith(item, typed, hand, quantity);
  if (bad) return fail('invalid', bad);
  if (item) {
    await appendLine(draft, { sku: item.sku, quantity, hand, buildId: null });
    await record(actor, 'line.added', draft.quote.number, { sku: item.sku, quantity });
    return done(null);
  }
  const read = await readBack(typed, contextFor(draft.revision));
  if (!read.ok) return fail('invalid', unknownNumber({ items, sale, actor }, read.failures[0], typed));
  const build = await createBuild(actor, { home: { of: 'quote', ...draft }, ...read.value });
  return appendBuild(actor, draft, build, { quantity, hand, unfinished });
}

/** Copies a line with all that is typed on it, a build with its decisions, to the place after it. */
export async function copyLine(
  actor: Actor,
  id: string,
  lineId: string,
  { version }: VersionInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const line = lineOf(draft, lineId);
    if (!line) return fail('missing', { code: 'line.missing' });
    const refused = refusedInside(
      (await reference()).items,
      [line.sku],
      saleOf(actor, draft.revision),
      actor,
    );
    if (refused.length > 0) return fail('invalid', ...refused);
    const { lines, builds } = connected().records;
    const of = line.buildId === null ? null : await builds.findByPk(line.buildId);
    const build =
      of &&
      (await createBuild(actor, {
        home: { of: 'quote', ...draft },
        version: await versionById(of.modelVersionId),
        asked: of.asked,
        decisions: of.decisions,
        special: of.special,
        date: of.context.date,
      }));
    const {
      sku,
      quantity,
      hand,
      locked,
      optional,
      term,
      typedPrice,
      typedCost,
      alternative,
      alternativeSet,
      position,
      pricedOn,
      groupName,
      rates,
      resale,
    } = line;
    await lines.increment('position', {
      where: { revisionId: draft.revision.id, position: { [Op.gt]: position } },
    });
    const copy = await appendLine(draft, {
      sku,
      quantity,
      hand,
      locked,
      optional,
      term,
      typedPrice,
      typedCost,
      alternative,
      alternativeSet: alternative ? alternativeSet : null,
      pricedOn,
      groupName,
      rates,
      resale,
      buildId: build?.id ?? null,
    });
    await lines.update({ position: position + 1 }, { where: { id: copy.id } });
    await record(actor, 'line.copied', draft.quote.number, { sku, from: position });
    return done(null);
  });
}

/** Puts a complete build on its quote as a line. */
export async function putOnQuote(
  actor: Actor,
  id: string,
  { version, quantity }: PutOnQuoteInput,
): Promise<Result<QuoteView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { quoteId } = found.value.build;
  if (quoteId === null) return fail('conflict', { code: 'build.noQuote' });
  return changeQuote(actor, quoteId, version, async (draft) => {
    const again = await findBuild(actor, id);
    return again.ok ? appendBuild(actor, draft, again.value.build, { quantity }) : again;
  });
}

/** Adds a line for a build; one that clashes, has something to do, or has no price is refused. */
export async function appendBuild(
  actor: Actor,
  draft: Draft,
  build: BuildRow,
  {
    quantity,
    hand = null,
    unfinished = 'refused',
  }: { quantity: number; hand?: Typed | null; unfinished?: Unfinished },
): Promise<Result<null>> {
  const ready = await readyLine(actor, draft, build, unfinished);
  if (!ready.ok) return ready;
  const { items } = await reference();
  const step = items.get(ready.value.sku)?.step ?? null;
  const bad = wrongQuantity({ sku: ready.value.sku, unit: 'pc', step }, quantity);
  if (bad) return fail('invalid', bad);
  await appendLine(draft, { ...ready.value, quantity, hand });
  await record(actor, 'line.added', draft.quote.number, { partNumber: build.outcome.partNumber, quantity });
  return done(null);
}

/** What a line for a build says, or why there can be none. */
async function readyLine(
  actor: Actor,
  draft: Draft,
  build: BuildRow,
  unfinished: Unfinished,
): Promise<Result<Pick<LineRow, 'sku' | 'buildId' | 'pricedOn'>>> {
  const { outcome } = build;
  if ((await connected().records.lines.count({ where: { buildId: build.id } })) > 0)
    return fail('conflict', { code: 'build.onQuote', params: { number: draft.quote.number } });
  if (outcome.clashes > 0) return fail('invalid', { code: 'line.clash', params: { count: outcome.clashes } });
  if (!outcome.complete && unfinished === 'refused')
    return fail('invalid', { code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
  const [offer] = await askEngine('offers', {
    tariff: await tariffKey(draft.revision.priceList, build.context.date),
    builds: [{ version: build.modelVersionId, values: outcome.values, special: build.special }],
  });
  const unpriced = offer?.parts.unpriced ?? [];
  if (unpriced.length > 0)
    return fail('invalid', { code: 'line.unpriced', params: { items: unpriced.join(', ') } });
  const { modelId } = await versionById(build.modelVersionId);
  const { items, models } = await reference();
  const sku = models.find(({ id }) => id === modelId)?.sku ?? '';
  const inside = (offer?.parts.parts ?? []).flatMap(({ item }) => item ?? []);
  const refused = refusedInside(items, [sku, ...inside], saleOf(actor, draft.revision), actor);
  if (refused.length > 0) return fail('invalid', ...refused);
  return done({
    sku,
    buildId: build.id,
    pricedOn: build.context.date,
  });
}
