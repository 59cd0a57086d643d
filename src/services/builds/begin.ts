/** Builds begun: from a model, another build, a kept one or a part number, on a quote or for oneself. */
import { randomUUID } from 'node:crypto';
import type { Context } from '../../core/engine';
import type { Begun, NewBuildInput } from '../../contract';
import { connected, type BuildRow, type Stored } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { versionInForce, versionById, type VersionHead } from '../catalogue/models';
import { ownCustomers } from '../customers/customers';
import { done, fail, type Result } from '../kernel/failure';
import { inTransaction, record } from '../kernel/unit-of-work';
import { holdQuote } from '../quotes/quote-state';
import { findBuild } from './find-build';
import { columnsOf, contextAt, pricedForOf, subjectAt, type Home } from './home';
import { outcomeOf, withPlace, type Content } from './outcome';
import { readBack } from './read-back';
import { findSaved } from './saved-builds';

/** What a new build starts from. */
type Start = { version: VersionHead } & Partial<Pick<Content, 'asked' | 'decisions' | 'special'>>;

/**
 * Begins a build on a quote, or for oneself with the customer whom it is priced for; it pins the newest
 * version of its model.
 */
export async function beginBuild(actor: Actor, input: NewBuildInput): Promise<Result<Begun>> {
  return inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const home = await homeFor(actor, input);
    if (!home.ok) return home;
    const start = await startOf(actor, input, contextAt(home.value));
    if (!start.ok) return start;
    const build = await createBuild(actor, { home: home.value, ...start.value });
    const { complete, clashes, warnings } = build.outcome;
    return done({ id: build.id, ready: complete && clashes === 0 && warnings.length === 0 });
  });
}

async function homeFor(actor: Actor, { quoteId, customerId }: NewBuildInput): Promise<Result<Home>> {
  if (quoteId !== undefined) return draftHome(actor, quoteId);
  const { customers } = connected().records;
  const customer = await customers.findOne({
    where: { id: customerId, ...ownCustomers(actor) },
    raw: true,
  });
  if (!customer) return fail('invalid', { code: 'quote.unknownCustomer', field: 'customerId' });
  const dealer =
    customer.dealerId === null ? null : await customers.findByPk(customer.dealerId, { raw: true });
  return done({
    of: 'person',
    ownerId: actor.id,
    pricedFor: pricedForOf(customer, dealer),
    region: customer.region,
  });
}

async function draftHome(actor: Actor, quoteId: string): Promise<Result<Home>> {
  const quote = await holdQuote(actor, quoteId);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const revision = await connected().records.revisions.findOne({
    where: { quoteId },
    order: [['number', 'DESC']],
  });
  return revision?.state === 'draft'
    ? done({ of: 'quote', quote, revision })
    : fail('conflict', { code: 'quote.settled', params: { number: quote.number } });
}

async function startOf(
  actor: Actor,
  { modelId, copyOf, savedId, partNumber: text, asked }: NewBuildInput,
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
    return saved ? fresh(saved.modelId, saved) : fail('missing', { code: 'saved.missing' });
  }
  return fresh(modelId ?? '', { asked });
}

/** On the newest version of a model; what it has no place for stays behind. */
async function fresh(
  modelId: string,
  { asked = [], decisions = [], special = [] }: Partial<Pick<Content, 'asked' | 'decisions' | 'special'>>,
): Promise<Result<Start>> {
  const version = await versionInForce(modelId);
  if (!version)
    return fail('invalid', { code: 'build.unknownModel', params: { model: modelId }, field: 'modelId' });
  return done({
    version,
    asked: await withPlace(version, asked),
    decisions: await withPlace(version, decisions),
    special,
  });
}

/** Writes a new build, under the rules and prices of today unless another day is given. */
export async function createBuild(
  actor: Actor,
  { home, version, asked = [], decisions = [], special = [], group, date }: NewBuild,
): Promise<Stored<BuildRow>> {
  const context = { ...contextAt(home), ...(date === undefined ? {} : { date }) };
  const id = randomUUID();
  const content = { asked: [...asked], decisions: [...decisions], passed: [], special: [...special] };
  const build = await connected().records.builds.create({
    id,
    modelVersionId: version.id,
    ...columnsOf(home),
    context,
    ...content,
    variantGroup: group?.id ?? id,
    letter: group?.letter ?? 'A',
    outcome: await outcomeOf(version, context, content),
    version: 1,
  });
  await record(actor, 'build.begun', subjectAt(home), {
    build: build.id,
    model: version.modelId,
    version: version.number,
  });
  return build;
}

/** A build to be written; a variant names its group and letter. */
type NewBuild = Start & { home: Home; group?: { id: string; letter: string }; date?: string };
