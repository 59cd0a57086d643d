/** What is put on a quote: plain items, builds, and what is typed as a number of either. */
import type { Transaction } from 'sequelize';
import { priceBuild } from '../core/pricing';
import { specialTariff, type NewLineInput, type PutOnQuoteInput, type QuoteView } from '../core/quoting';
import { connected, type BuildRow } from '../data';
import type { Actor } from './actor';
import { contextFor, createBuild } from './builds';
import { done, fail, type Result } from './failure';
import { findBuild } from './find-build';
import { compiledVersion, versionById } from './models';
import { readBack } from './read-back';
import { appendLine, changeQuote, type Draft } from './quotes';
import { fullTariff } from './tariffs';
import { record } from './work';

/** Adds what is typed: the number of a plain item, or a part number, which is read back into a build. */
export async function addByNumber(actor: Actor, id: string, { version, sku: typed, quantity }: NewLineInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft, transaction) => {
    const sku = typed.trim().toUpperCase();
    const item = await connected().records.items.findOne({ where: { sku, sold: true }, transaction });
    if (item?.kind === 'model') return fail('invalid', { code: 'line.needsBuild', params: { sku: typed }, field: 'sku' });
    if (item) {
      await appendLine(draft, { sku: item.sku, quantity, buildId: null }, transaction);
      await record(actor, 'line.added', draft.quote.number, { sku: item.sku, quantity }, transaction);
      return done(null);
    }
    const read = await readBack(sku, contextFor(draft.revision), transaction);
    if (!read.ok) {
      const [failure] = read.failures;
      return fail('invalid', failure && failure.code !== 'number.unknown' ? { ...failure, field: 'sku' } : { code: 'line.unknownItem', params: { sku: typed }, field: 'sku' });
    }
    const build = await createBuild(actor, { ...draft, ...read.value }, transaction);
    return appendBuild(actor, draft, build, { quantity, alternative: false }, transaction);
  });
}

/** Puts a complete build on its quote as a line. */
export async function putOnQuote(actor: Actor, id: string, { version, quantity }: PutOnQuoteInput): Promise<Result<QuoteView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  return changeQuote(actor, found.value.build.quoteId, version, async (draft, transaction) => {
    const again = await findBuild(actor, id, transaction);
    return again.ok ? appendBuild(actor, draft, again.value.build, { quantity, alternative: false }, transaction) : again;
  });
}

/** Adds a line for a build; one that clashes, has something to do, or has no price is refused. */
export async function appendBuild(actor: Actor, draft: Draft, build: BuildRow, { quantity, alternative }: { quantity: number; alternative: boolean }, transaction: Transaction): Promise<Result<null>> {
  const { lines, models } = connected().records;
  if (await lines.findOne({ where: { buildId: build.id }, transaction })) return fail('conflict', { code: 'build.onQuote', params: { number: draft.quote.number } });
  const modelVersion = await versionById(build.modelVersionId, transaction);
  const { outcome } = build;
  if (outcome.clashes > 0) return fail('invalid', { code: 'line.clash', params: { count: outcome.clashes } });
  if (!outcome.complete) return fail('invalid', { code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
  const tariff = specialTariff(await fullTariff(draft.revision.priceList, transaction), build.special);
  const { unpriced } = priceBuild(compiledVersion(modelVersion), outcome.values, tariff);
  if (unpriced.length > 0) return fail('invalid', { code: 'line.unpriced', params: { items: unpriced.join(', ') } });
  const head = await models.findByPk(modelVersion.modelId, { transaction });
  await appendLine(draft, { sku: head?.sku ?? '', quantity, buildId: build.id, alternative }, transaction);
  await record(actor, 'line.added', draft.quote.number, { partNumber: outcome.partNumber, quantity, ...(alternative ? { alternative } : {}) }, transaction);
  return done(null);
}
