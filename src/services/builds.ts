/** Builds: every decision is saved as it is made, and everything that follows is worked out here again. */
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { checkDecisions, type Context, type Decision, type State } from '../core/engine';
import { outlineOf, type ModelDocument, type CompiledModel } from '../core/model';
import { partNumber, sequenceKey } from '../core/numbering';
import { priceBuild } from '../core/pricing';
import { pictureOf, type BenchView, type DecisionsInput, type NewBuildInput, type PutOnQuoteInput, type QuoteView } from '../core/quoting';
import { connected, type BuildOutcome, type BuildRow, type Stored } from '../data';
import { refusal, type Actor } from './actor';
import { agreementsOf } from './agreements';
import { today } from './clock';
import { done, fail, type Result } from './failure';
import { compiledVersion, engineOf, newestVersion, versionById } from './models';
import { fullTariff, itemFacts, tariffFor } from './tariffs';
import { appendLine, changeQuote, findQuote } from './quotes';
import { inTransaction, record } from './work';

/** Begins a build of a model's newest version for a quote; it pins that version. */
export async function beginBuild(actor: Actor, { quoteId, modelId }: NewBuildInput): Promise<Result<{ id: string }>> {
  return inTransaction(async (transaction) => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const quote = await findQuote(actor, quoteId, transaction);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    const version = await newestVersion(modelId, transaction);
    if (!version) return fail('invalid', { code: 'build.unknownModel', params: { model: modelId }, field: 'modelId' });
    const revision = await connected().records.revisions.findOne({ where: { quoteId }, order: [['number', 'DESC']], transaction });
    if (revision?.state !== 'draft') return fail('conflict', { code: 'quote.settled', params: { number: quote.number } });
    const context: Context = { date: today(), values: { region: revision.customer.region } };
    const state = engineOf(version, context).state({ decisions: [] });
    const build = await connected().records.builds.create(
      { id: randomUUID(), modelVersionId: version.id, quoteId, context, decisions: [], outcome: await outcomeOf(compiledVersion(version), state, transaction), version: 1 },
      { transaction },
    );
    await record(actor, 'build.begun', quote.number, { build: build.id, model: modelId, version: version.number }, transaction);
    return done({ id: build.id });
  });
}

interface Found {
  build: Stored<BuildRow>;
  state: 'draft' | 'accepted';
}

async function findBuild(actor: Actor, id: string, transaction: Transaction | null = null): Promise<Result<Found>> {
  const { builds, revisions } = connected().records;
  const missing = fail('missing', { code: 'build.missing' });
  if (!/^[0-9a-f-]{36}$/i.test(id)) return missing;
  const build = await builds.findByPk(id, { transaction, ...(transaction ? { lock: transaction.LOCK.UPDATE } : {}) });
  const quote = build && (await findQuote(actor, build.quoteId, transaction));
  if (!quote) return missing;
  const revision = await revisions.findOne({ where: { quoteId: quote.id }, order: [['number', 'DESC']], transaction });
  return done({ build, state: revision?.state ?? 'draft' });
}

/** Items that a model, or one inside it, can be made of. */
function materialsOf({ materials, library }: ModelDocument): Set<string> {
  return new Set([...materials, ...(library?.models ?? []).flatMap((inner) => inner.materials)].map((row) => row.item));
}

/** Everything the Bench needs, without costs for those who may not see them. */
export async function openBench(actor: Actor, id: string): Promise<Result<BenchView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build, state } = found.value;
  const { quotes, revisions, lines, items } = connected().records;
  const version = await versionById(build.modelVersionId);
  const quote = await quotes.findByPk(build.quoteId);
  const revision = await revisions.findOne({ where: { quoteId: build.quoteId }, order: [['number', 'DESC']] });
  if (!quote || !revision) throw new Error('a build without a quote');
  const [line, tariff, facts] = [await lines.findOne({ where: { buildId: id } }), await tariffFor(actor, revision.priceList), await itemFacts()];
  const listed = await connected().records.models.findByPk(version.modelId);
  const head = await items.findByPk(listed?.sku ?? '');
  const agreement = (await agreementsOf(revision.customer.class, today()))(head?.family ?? '');
  const names = await items.findAll({ attributes: ['sku', 'name'], raw: true });
  const model = compiledVersion(version);
  const used = materialsOf(version.document);
  const sequence = await registered(compiledVersion(version), build.outcome, null);
  const terms = { quantity: line?.quantity ?? 1, discount: line?.discount ?? '0', ...(agreement ? { agreement } : {}) };
  const engine = engineOf(version, build.context);
  return done({
    build: { id, version: build.version, decisions: build.decisions },
    document: version.document,
    outline: outlineOf(model),
    context: build.context,
    tariff,
    terms,
    facts,
    itemNames: Object.fromEntries(names.filter((item) => used.has(item.sku)).map((item) => [item.sku, item.name])),
    quote: { id: quote.id, number: quote.number, version: quote.version, customer: revision.customer.name, state },
    ...(line ? { line: { id: line.id, position: line.position } } : {}),
    ...(sequence === undefined ? {} : { sequence }),
    picture: pictureOf({ engine, tariff, terms, facts, sequence }, build.decisions),
  });
}

/** Saves the decisions of a build. What the page computed is not asked for: the server works it out again. */
export async function saveDecisions(actor: Actor, id: string, { version, decisions }: DecisionsInput): Promise<Result<{ version: number; partNumber: string; complete: boolean; sequence?: number }>> {
  return inTransaction(async (transaction) => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const found = await findBuild(actor, id, transaction);
    if (!found.ok) return found;
    const { build, state: quoteState } = found.value;
    if (quoteState !== 'draft') return fail('conflict', { code: 'build.settled' });
    if (build.version !== version) return fail('conflict', { code: 'build.stale' });
    const modelVersion = await versionById(build.modelVersionId, transaction);
    const model = compiledVersion(modelVersion);
    const problems = checkDecisions(model, decisions as Decision[]);
    if (problems.length > 0) return fail('invalid', ...problems.map(({ on, code, params }) => ({ code, params, field: on })));
    const state = engineOf(modelVersion, build.context).state({ decisions });
    const outcome = await outcomeOf(model, state, transaction);
    await build.update({ decisions, outcome, version: version + 1 }, { transaction });
    const sequence = await registered(model, outcome, transaction);
    return done({ version: version + 1, partNumber: outcome.partNumber, complete: outcome.complete, ...(sequence === undefined ? {} : { sequence }) });
  });
}

async function outcomeOf(model: CompiledModel, state: State, transaction: Transaction): Promise<BuildOutcome> {
  const key = state.complete ? sequenceKey(model, state.values) : null;
  const sequence = key === null ? undefined : await register(model.document.id, key, transaction);
  return {
    values: state.values,
    partNumber: partNumber(model, state.values, sequence).text,
    complete: state.complete,
    todo: state.sections.reduce((sum, section) => sum + section.todo, 0),
    clashes: state.clashes.length,
    warnings: state.messages.filter((message) => message.severity === 'warning').map((message) => message.text),
  };
}

/** The number registered for what a part number's codes cannot say; the same values always get the same number. */
async function register(modelId: string, key: string, transaction: Transaction): Promise<number> {
  const { registeredNumbers, models } = connected().records;
  const known = await registeredNumbers.findOne({ where: { modelId, key }, transaction });
  if (known) return known.number;
  // The model's row is the lock under which its numbers are given out.
  await models.findByPk(modelId, { transaction, lock: transaction.LOCK.UPDATE });
  const again = await registeredNumbers.findOne({ where: { modelId, key }, transaction });
  if (again) return again.number;
  const last = (await registeredNumbers.max('number', { where: { modelId }, transaction })) as number | null;
  return (await registeredNumbers.create({ modelId, key, number: (last ?? 0) + 1 }, { transaction })).number;
}

async function registered(model: CompiledModel, outcome: BuildOutcome, transaction: Transaction | null): Promise<number | undefined> {
  const key = sequenceKey(model, outcome.values);
  const row = key === null ? null : await connected().records.registeredNumbers.findOne({ where: { modelId: model.document.id, key }, transaction });
  return row?.number;
}

/** Puts a complete build on its quote as a line. */
export async function putOnQuote(actor: Actor, id: string, { version, quantity }: PutOnQuoteInput): Promise<Result<QuoteView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  return changeQuote(actor, found.value.build.quoteId, version, async (draft, transaction) => {
    const { build } = found.value;
    const { lines, models } = connected().records;
    if (await lines.findOne({ where: { buildId: id }, transaction })) return fail('conflict', { code: 'build.onQuote', params: { number: draft.quote.number } });
    const modelVersion = await versionById(build.modelVersionId, transaction);
    const model = compiledVersion(modelVersion);
    const { outcome } = build;
    if (outcome.clashes > 0) return fail('invalid', { code: 'line.clash', params: { count: outcome.clashes } });
    if (!outcome.complete) return fail('invalid', { code: 'line.todo', params: { count: Math.max(1, outcome.todo) } });
    const { unpriced } = priceBuild(model, outcome.values, await fullTariff(draft.revision.priceList, transaction));
    if (unpriced.length > 0) return fail('invalid', { code: 'line.unpriced', params: { items: unpriced.join(', ') } });
    const head = await models.findByPk(modelVersion.modelId, { transaction });
    await appendLine(draft, { sku: head?.sku ?? '', quantity, buildId: id }, transaction);
    await record(actor, 'line.added', draft.quote.number, { partNumber: outcome.partNumber, quantity }, transaction);
    return done(null);
  });
}
