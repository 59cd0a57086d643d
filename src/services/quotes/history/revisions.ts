/** Revisions: sent and frozen, begun anew as a copy, lost, compared. */
import { randomUUID } from 'node:crypto';
import { compareRevisions, type Comparison, type Side } from '../../../core/quotes';
import { type LoseInput, type QuoteView, type ReviseInput, type VersionInput } from '../../../contract';
import { sumLines } from '../../../core/pricing';
import { connected, type BuildRow, type RevisionRow, type Stored } from '../../../data';
import type { Actor } from '../../access/actor';
import { inDays, now, today } from '../../kernel/clock';
import { done, fail, type Failure, type Result } from '../../kernel/failure';
import {
  counted,
  partsIn,
  partsOf,
  priceAll,
  priceLines,
  type Quoted,
  type QuotedLine,
  type QuoteParts,
} from '../figures/quote-pricing';
import { changeQuote, validDays } from '../quotes';
import { findQuote, type QuoteBase, type QuoteState } from '../quote-state';
import { sideLines } from './sides';
import { unsigned } from '../sign-off/standing';
import { deliveredTo } from '../../settings/addressed';
import { taxOf } from '../../settings/tax';
import { record } from '../../kernel/unit-of-work';

/** What keeps a draft from being sent or accepted. */
export async function obstacles(state: QuoteState, { lines: priced, comes }: Quoted): Promise<Failure[]> {
  const sold = counted(priced);
  if (sold.length === 0) return [{ code: 'quote.empty' }];
  const broken = sold.flatMap(({ line, problems }): Failure[] =>
    problems.map(({ code, params }) => ({ code, params, field: `line.${String(line.position)}` })),
  );
  // What is promised and cannot be given is not left out silently.
  if (comes.is === 'impossible')
    broken.push({ code: 'quote.whole', params: { why: comes.why }, field: 'whole' });
  if (broken.length > 0) return broken;
  const missing = await unsigned(state, priced);
  return missing.length > 0 ? [{ code: 'quote.unsigned', params: { roles: missing.join(', ') } }] : [];
}

/** Freezes a draft with its prices, or moves what is frozen on to another state. */
export async function settle(
  actor: Actor,
  revision: RevisionRow,
  priced: readonly QuotedLine[],
  to: Pick<RevisionRow, 'state'> & Partial<RevisionRow>,
  { list }: QuoteParts,
): Promise<void> {
  const { revisions } = connected().records;
  if (revision.state === 'draft') {
    const frozen = priced.map(({ line, price, parts: build }) => ({
      id: line.id,
      frozen: { price, ...(build ? { build } : {}) },
    }));
    await connected().sequelize.query(
      'update quote_lines l set frozen = m.frozen from jsonb_to_recordset($1::jsonb) as m(id uuid, frozen jsonb) where l.id = m.id',
      { bind: [JSON.stringify(frozen)] },
    );
  }
  const taxed =
    revision.taxed ?? (await taxOf(deliveredTo(revision.customer), counted(priced), list.decimals)) ?? null;
  await revisions.update(
    { taxed, settledAt: now(), settledBy: actor.id, ...to },
    { where: { id: revision.id } },
  );
}

/** Sends the draft: from now on it never changes. */
export async function sendQuote(
  actor: Actor,
  id: string,
  { version }: VersionInput,
): Promise<Result<QuoteView>> {
  return changeQuote(
    actor,
    id,
    version,
    async ({ quote, revision, state }) => {
      const parts = await partsIn(state);
      const quoted = await priceAll(parts);
      const { lines: priced } = quoted;
      const refused = await obstacles(state, quoted);
      if (revision.validUntil < today()) refused.push({ code: 'quote.validPast', field: 'validUntil' });
      if (refused.length > 0) return fail('invalid', ...refused);
      await settle(actor, revision, priced, { state: 'sent' }, parts);
      await record(actor, 'quote.sent', quote.number, {
        revision: revision.number,
        net: sumLines(
          counted(priced).map((each) => each.price),
          parts.list.decimals,
        ).net,
        currency: parts.list.currency,
      });
      return done(null);
    },
    { steps: false },
  );
}

/** Marks the quote as lost, with why. */
export async function loseQuote(
  actor: Actor,
  id: string,
  { version, reason, note }: LoseInput,
): Promise<Result<QuoteView>> {
  return changeQuote(
    actor,
    id,
    version,
    async ({ quote, revision, state }) => {
      const parts = await partsIn(state);
      await settle(
        actor,
        revision,
        await priceLines(parts),
        { state: 'lost', lost: { reason, note } },
        parts,
      );
      await record(actor, 'quote.lost', quote.number, { revision: revision.number, reason, note });
      return done(null);
    },
    { states: ['draft', 'sent'], steps: false },
  );
}

/**
 * Begins a new revision as a copy of the newest, or of another one: lines with all that is typed on them, on
 * the same day's prices, and builds with their variants. Builds that stand on no line come along.
 */
export async function reviseQuote(
  actor: Actor,
  id: string,
  { version, from }: ReviseInput,
): Promise<Result<QuoteView>> {
  return changeQuote(
    actor,
    id,
    version,
    async ({ quote, revision: newest }) => {
      const { revisions, lines } = connected().records;
      const source =
        from === undefined ? newest : await revisions.findOne({ where: { quoteId: quote.id, number: from } });
      if (!source) return fail('missing', { code: 'revision.missing', params: { number: from ?? 0 } });
      const { priceList, customer, whole, lease, resale } = source;
      const made = await revisions.create({
        id: randomUUID(),
        quoteId: quote.id,
        number: newest.number + 1,
        state: 'draft',
        priceList,
        customer,
        validUntil: inDays(validDays),
        whole,
        lease,
        resale,
        madeBy: actor.id,
        settledAt: null,
        settledBy: null,
        lost: null,
        taxed: null,
      });
      const rows = await lines.findAll({
        where: { revisionId: source.id },
        order: [['position', 'ASC']],
        raw: true,
      });
      const builtAs = await copyBuilds(source, made);
      await moveLoose(newest, made);
      await lines.bulkCreate(
        rows.map((line) => ({
          ...line,
          id: randomUUID(),
          revisionId: made.id,
          frozen: null,
          buildId: line.buildId === null ? null : (builtAs.get(line.buildId) ?? null),
        })),
      );
      await record(actor, 'quote.revised', quote.number, { from: source.number, to: made.number });
      return done(null);
    },
    { states: ['sent', 'lost'], steps: false },
  );
}

/**
 * The builds of a revision, those whose group has one on a line of it and the others; what is still being
 * configured stands on none.
 */
async function variantGroupsOf({
  id,
}: RevisionRow): Promise<{ sold: Stored<BuildRow>[]; loose: Stored<BuildRow>[] }> {
  const { lines, builds } = connected().records;
  const onLines = new Set(
    (await lines.findAll({ where: { revisionId: id }, attributes: ['buildId'], raw: true })).map(
      (line) => line.buildId,
    ),
  );
  const own = await builds.findAll({ where: { revisionId: id } });
  const groups = new Set(own.filter((build) => onLines.has(build.id)).map((build) => build.variantGroup));
  return {
    sold: own.filter((build) => groups.has(build.variantGroup)),
    loose: own.filter((build) => !groups.has(build.variantGroup)),
  };
}

/** Copies what is sold with its variants, each group as one of its own. Gives the copy of each build. */
async function copyBuilds(source: RevisionRow, to: RevisionRow): Promise<Map<string, string>> {
  const [builtAs, groups] = [new Map<string, string>(), new Map<string, string>()];
  for (const build of (await variantGroupsOf(source)).sold) {
    const group = groups.get(build.variantGroup) ?? randomUUID();
    groups.set(build.variantGroup, group);
    const copy = await connected().records.builds.create({
      ...build.get({ plain: true }),
      id: randomUUID(),
      revisionId: to.id,
      variantGroup: group,
      version: 1,
    });
    builtAs.set(build.id, copy.id);
  }
  return builtAs;
}

/** What is still being configured belongs to whatever is open now. */
async function moveLoose(from: RevisionRow, to: RevisionRow): Promise<void> {
  for (const build of (await variantGroupsOf(from)).loose) await build.update({ revisionId: to.id });
}

/** What differs between two revisions of a quote. */
export async function compareQuote(
  actor: Actor,
  id: string,
  before: number,
  after: number,
): Promise<Result<Comparison>> {
  const quote = await findQuote(actor, id);
  if (!quote) return fail('missing', { code: 'quote.missing' });
  const sides: Side[] = [];
  for (const number of [before, after]) {
    const there =
      Number.isInteger(number) &&
      Math.abs(number) < 1e6 &&
      (await connected().records.revisions.count({ where: { quoteId: id, number } })) > 0;
    if (!there) return fail('missing', { code: 'revision.missing', params: { number } });
    sides.push(await sideOf(quote, number));
  }
  return done(compareRevisions(sides[0] as Side, sides[1] as Side));
}

async function sideOf(quote: QuoteBase, number: number): Promise<Side> {
  const parts = await partsOf(quote, number);
  const { revision, list } = parts;
  const priced = await priceLines(parts);
  const {
    list: listed,
    net,
    oneTime,
    recurring,
    firstYear,
  } = sumLines(
    counted(priced).map((each) => each.price),
    list.decimals,
  );
  return {
    number,
    currency: list.currency,
    decimals: list.decimals,
    validUntil: revision.validUntil,
    customer: revision.customer.name,
    totals: { list: listed, net, oneTime, recurring, firstYear },
    lines: await sideLines(priced),
  };
}
