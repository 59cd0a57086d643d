/**
 * Builds: begun from a model, another build or a part number; saved as they are made, with everything that
 * follows worked out here again.
 */
import { randomUUID } from 'node:crypto';
import { Op, type Model } from 'sequelize';
import type { Context } from '../../core/engine';
import { registeredAs, type Registered, type Registration } from '../../core/numbering';
import { specialKey, type BuildContent, type PassedWarning, type SpecialPart } from '../../core/builds';
import { type ContentInput, type NewBuildInput, type SavedContent } from '../../contract';
import {
  connected,
  type BuildOutcome,
  type BuildRow,
  type QuoteRow,
  type RevisionRow,
  type Stored,
} from '../../data';
import { may, refusal, type Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { askEngine, factsKey } from '../kernel/engines';
import { newestVersion, versionById, type VersionHead } from '../catalogue/models';
import { keepFacts } from '../quotes/figures/quote-facts';
import { holdQuote, type QuoteBase } from '../quotes/quote-state';
import { findBuild, findOpenBuild, type Found } from './find-build';
import { readBack } from './read-back';
import { findSaved } from './saved-builds';
import { inTransaction, record } from '../kernel/unit-of-work';

/** What a new build starts from. */
type Start = { version: VersionHead } & Partial<Pick<BuildContent, 'decisions' | 'special'>>;

/** Begins a build on a quote; it pins the newest version of its model. */
export async function beginBuild(actor: Actor, input: NewBuildInput): Promise<Result<{ id: string }>> {
  return inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const draft = await draftOf(actor, input.quoteId);
    if (!draft.ok) return draft;
    const start = await startOf(actor, input, contextFor(draft.value.revision));
    if (!start.ok) return start;
    const build = await createBuild(actor, { ...draft.value, ...start.value });
    return done({ id: build.id });
  });
}

async function draftOf(
  actor: Actor,
  quoteId: string,
): Promise<Result<{ quote: QuoteBase; revision: RevisionRow }>> {
  const quote = await holdQuote(actor, quoteId);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const revision = await connected().records.revisions.findOne({
    where: { quoteId },
    order: [['number', 'DESC']],
  });
  if (revision?.state !== 'draft')
    return fail('conflict', { code: 'quote.settled', params: { number: quote.number } });
  return done({ quote, revision });
}

/** What a quote fixes for its builds. */
export const contextFor = (revision: RevisionRow): Context => ({
  date: today(),
  values: { region: revision.customer.region },
});

async function startOf(
  actor: Actor,
  { modelId, copyOf, savedId, partNumber: text }: NewBuildInput,
  context: Context,
): Promise<Result<Start>> {
  if (text !== undefined) return readBack(text, context);
  if (copyOf !== undefined) {
    const found = await findBuild(actor, copyOf);
    if (!found.ok) return found;
    const { build } = found.value;
    const pinned = await versionById(build.modelVersionId);
    return fresh(pinned.modelId, build);
  }
  if (savedId !== undefined) {
    const saved = await findSaved(actor, savedId);
    return saved
      ? fresh(saved.modelId, { decisions: saved.decisions })
      : fail('missing', { code: 'saved.missing' });
  }
  return fresh(modelId ?? '', {});
}

/** On the newest version of a model; decisions that it has no place for stay behind. */
async function fresh(
  modelId: string,
  { decisions = [], special = [] }: Partial<Pick<BuildContent, 'decisions' | 'special'>>,
): Promise<Result<Start>> {
  const version = await newestVersion(modelId);
  if (!version)
    return fail('invalid', { code: 'build.unknownModel', params: { model: modelId }, field: 'modelId' });
  const lost = new Set(
    (await askEngine('check', { version: version.id, decisions })).map((problem) => problem.on),
  );
  return done({ version, decisions: decisions.filter((decision) => !lost.has(decision.on)), special });
}

/**
 * Writes a new build, under the rules and prices of today unless another day is given; a variant names its
 * talk and letter.
 */
export async function createBuild(
  actor: Actor,
  {
    quote,
    revision,
    version,
    decisions = [],
    special = [],
    talk,
    date,
  }: Start & { quote: QuoteRow; revision: RevisionRow; talk?: { id: string; letter: string }; date?: string },
): Promise<Stored<BuildRow>> {
  const context = { ...contextFor(revision), ...(date === undefined ? {} : { date }) };
  const content: BuildContent = { decisions, passed: [], special };
  const id = randomUUID();
  const build = await connected().records.builds.create({
    id,
    modelVersionId: version.id,
    quoteId: quote.id,
    revisionId: revision.id,
    context,
    decisions: [...decisions],
    passed: [],
    special: [...special],
    talkId: talk?.id ?? id,
    letter: talk?.letter ?? 'A',
    outcome: await outcomeOf(version, context, content),
    version: 1,
  });
  await record(actor, 'build.begun', quote.number, {
    build: build.id,
    model: version.modelId,
    version: version.number,
  });
  return build;
}

/**
 * Saves what a person made of a build. What the page computed is not asked for: the server works it out
 * again.
 */
export async function saveContent(
  actor: Actor,
  id: string,
  { version, decisions, passed, special }: ContentInput,
): Promise<Result<SavedContent>> {
  return inTransaction(async () => {
    const found = await findOpenBuild(actor, id);
    if (!found.ok) return found;
    const { build } = found.value;
    if (build.version !== version) return fail('conflict', { code: 'build.stale' });
    if (special.length > 0 && !may(actor, 'special'))
      return fail('forbidden', { code: 'refused.permission', params: { permission: 'special' } });
    const modelVersion = await versionById(build.modelVersionId);
    const problems = await askEngine('check', {
      version: modelVersion.id,
      decisions: decisions,
    });
    if (problems.length > 0)
      return fail('invalid', ...problems.map(({ on, code, params }) => ({ code, params, field: on })));
    const now = new Date().toISOString();
    // Who passed a warning, and when, is the server's to say.
    const kept = passed.map(
      ({ rule, reason }): PassedWarning =>
        build.passed.find((each) => each.rule === rule && each.reason === reason) ?? {
          rule,
          reason,
          by: actor.name,
          at: now,
        },
    );
    const outcome = await outcomeOf(modelVersion, build.context, { decisions, passed: kept, special });
    await build.update({ decisions, passed: kept, special, outcome, version: version + 1 });
    await keepFactsOf(found.value);
    return done({
      version: version + 1,
      partNumber: outcome.partNumber,
      complete: outcome.complete,
      ...(await registeredFor(modelVersion, outcome)),
      ...(may(actor, 'workOrders') ? {} : { leadDays: await leadOf(modelVersion, outcome, special) }),
    });
  });
}

async function leadOf(
  { id: version }: VersionHead,
  { values }: BuildOutcome,
  special: readonly SpecialPart[],
): Promise<number | null> {
  const [days = null] = await askEngine('leads', {
    facts: await factsKey(),
    builds: [{ version, values, special }],
  });
  return days;
}

/** What a build comes to counts on its quote where it stands on a line. */
export async function keepFactsOf({ build, quote }: Pick<Found, 'build' | 'quote'>): Promise<void> {
  if ((await connected().records.lines.count({ where: { buildId: build.id } })) > 0) await keepFacts(quote);
}

/** Everything that follows from a build's content, and the numbers registered for it. */
export async function outcomeOf(
  { id: version, modelId }: VersionHead,
  context: Context,
  { decisions, passed, special }: BuildContent,
): Promise<BuildOutcome> {
  const { outcome, own, inside } = await askEngine('outcome', { version, context, decisions, passed });
  const numbers = await registerAll([...(own ? [own] : []), ...inside]);
  const sequence = own && numbers.get(own);
  const marks = specialKey(special);
  const specialNumber = marks === null ? undefined : await register(modelId, marks);
  const partNumber = await askEngine('number', {
    version,
    values: outcome.values,
    ...(sequence === undefined ? {} : { sequence }),
    ...(marks === null ? {} : { special: { number: specialNumber } }),
  });
  return { ...outcome, partNumber, ...(specialNumber === undefined ? {} : { specialNumber }) };
}

/**
 * Numbers for a build and those inside it; models are locked in one order, so that nobody waits for each
 * other.
 */
async function registerAll(wanted: readonly Registration[]): Promise<Map<Registration, number>> {
  const found = new Map<Registration, number>();
  for (const each of [...wanted].sort((a, b) => (a.model < b.model ? -1 : 1)))
    found.set(each, await register(each.model, each.key));
  return found;
}

/**
 * The number registered for what a part number's codes cannot say; the same content always gets the same
 * number.
 */
async function register(modelId: string, key: string): Promise<number> {
  const { registeredNumbers, models } = connected().records;
  const known = await registeredNumbers.findOne({ where: { modelId, key } });
  if (known) return known.number;
  // The model's row is the lock under which its numbers are given out.
  await models.findByPk(modelId, { lock: true });
  const again = await registeredNumbers.findOne({ where: { modelId, key } });
  if (again) return again.number;
  const last = await registeredNumbers.max<number | null, Model>('number', { where: { modelId } });
  return (await registeredNumbers.create({ modelId, key, number: (last ?? 0) + 1 })).number;
}

/** The numbers that are registered for an outcome by now. */
export async function registeredFor(
  { id: version }: VersionHead,
  { values, specialNumber }: BuildOutcome,
): Promise<{ registered?: Registered; specialNumber?: number }> {
  const wanted = await askEngine('registrations', { version, values });
  const rows =
    wanted.length === 0
      ? []
      : await connected().records.registeredNumbers.findAll({
          where: {
            modelId: { [Op.in]: wanted.map(({ model }) => model) },
            key: { [Op.in]: wanted.map(({ key }) => key) },
          },
          raw: true,
        });
  const registered = Object.fromEntries(
    rows.map(({ modelId, key, number }) => [registeredAs({ model: modelId, key }), number]),
  );
  return {
    ...(rows.length > 0 ? { registered } : {}),
    ...(specialNumber === undefined ? {} : { specialNumber }),
  };
}
