/** Shares as the house has them: made, seen, prolonged, revoked. Only the hash of a token is kept. */
import { randomBytes, randomUUID } from 'node:crypto';
import type { SharedLink, ShareInput, ShareView } from '../../contract';
import { shareState } from '../../core/sending';
import { connected, type ShareRow } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { hashToken } from '../access/sessions';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { nameOf, reference } from '../settings/reference-data';
import { keepQuotation } from './keep-job';
import { aboutBuild, aboutQuote, type Subject } from '../outbox/about';

/** Whom a share is for, and until when. */
export type SharedWith = Pick<ShareInput, 'name' | 'address' | 'until'>;

/** A share opens for so many days at most. */
const mostDays = 400;

/** Makes a share of a revision or of a build; part of a transaction. Its path is told this once. */
export async function makeShare(
  actor: Actor,
  { quote, revision, build, language }: Pick<Subject, 'quote' | 'revision' | 'build' | 'language'>,
  { name, address, until }: SharedWith,
): Promise<Result<{ row: ShareRow; path: string }>> {
  const wrong = untilProblem(until);
  if (wrong) return wrong;
  const token = randomBytes(32).toString('base64url');
  const row: ShareRow = {
    id: randomUUID(),
    tokenHash: hashToken(token),
    quoteId: quote?.id ?? null,
    revisionId: build ? null : (revision?.id ?? null),
    buildId: build?.id ?? null,
    forName: name,
    forAddress: address,
    language,
    until,
    madeBy: actor.id,
    madeAt: new Date(),
    revokedAt: null,
    revokedBy: null,
    firstSeenAt: null,
    lastSeenAt: null,
    seen: 0,
  };
  await connected().records.shares.create(row);
  await record(actor, 'share.made', quote?.number ?? build?.outcome.partNumber ?? '', {
    for: name === '' ? address : name,
    until,
  });
  return done({ row, path: `/s/${token}` });
}

function untilProblem(until: string): Result<never> | null {
  const days = (Date.parse(until) - Date.parse(today())) / 86_400_000;
  if (days < 0) return fail('invalid', { code: 'share.past', field: 'until' });
  return days > mostDays
    ? fail('invalid', { code: 'share.far', params: { days: mostDays }, field: 'until' })
    : null;
}

/** A link to the newest revision of a quote, once it was sent. */
export const shareQuote = (
  actor: Actor,
  id: string,
  input: ShareInput,
  base: string,
): Promise<Result<SharedLink>> =>
  inTransaction(async () => {
    const found = await aboutQuote(actor, id);
    if (!found.ok) return found;
    const { state } = found.value.revision;
    if (state !== 'sent' && state !== 'accepted') return fail('conflict', { code: 'share.notSent' });
    return linked(actor, found.value, input, base);
  });

/** A link to a build. */
export const shareBuild = (
  actor: Actor,
  id: string,
  input: ShareInput,
  base: string,
): Promise<Result<SharedLink>> =>
  inTransaction(async () => {
    const found = await aboutBuild(actor, id);
    return found.ok ? linked(actor, { ...found.value, revision: null }, input, base) : found;
  });

async function linked(
  actor: Actor,
  subject: Subject,
  input: ShareInput,
  base: string,
): Promise<Result<SharedLink>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const made = await makeShare(actor, subject, input);
  if (!made.ok) return made;
  // Made before the customer comes, so that they need not wait for what they say yes to.
  if (!subject.build && subject.revision) await keepQuotation(subject.revision.id);
  const share = await viewOf(made.value.row, subject.build ? null : (subject.revision?.number ?? null));
  return done({ link: `${base}${made.value.path}`, share });
}

async function viewOf(row: ShareRow, revision: number | null): Promise<ShareView> {
  return {
    id: row.id,
    revision,
    name: row.forName,
    address: row.forAddress,
    language: row.language,
    until: row.until,
    state: shareState({ until: row.until, revoked: row.revokedAt !== null }, today()),
    madeBy: nameOf(await reference(), row.madeBy),
    madeAt: row.madeAt.toISOString(),
    seen: row.seen,
    firstSeenAt: row.firstSeenAt?.toISOString() ?? null,
    lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
  };
}

/** Shares of a quote or of a build, the newest first. */
export async function sharesOf(where: { quoteId: string } | { buildId: string }): Promise<ShareView[]> {
  const { shares, revisions } = connected().records;
  const rows = await shares.findAll({ where, order: [['madeAt', 'DESC']], limit: 200, raw: true });
  const ids = rows.flatMap(({ revisionId }) => revisionId ?? []);
  const numbers = new Map(
    (await revisions.findAll({ where: { id: ids }, attributes: ['id', 'number'], raw: true })).map(
      ({ id, number }) => [id, number],
    ),
  );
  return Promise.all(rows.map((row) => viewOf(row, numbers.get(row.revisionId ?? '') ?? null)));
}

/** A share of what the actor sees, kept from being changed by others. */
async function findShare(actor: Actor, id: string) {
  const missing = fail('missing', { code: 'share.missing' });
  const row = isReference(id) ? await connected().records.shares.findByPk(id, { lock: true }) : null;
  if (!row) return missing;
  const sees =
    row.quoteId !== null ? await aboutQuote(actor, row.quoteId) : await aboutBuild(actor, row.buildId ?? '');
  return sees.ok ? done({ row, about: sees.value }) : missing;
}

/** Ends a share at once. */
export const revokeShare = (actor: Actor, id: string): Promise<Result<ShareView>> =>
  changed(actor, id, async (row) => {
    if (row.revokedAt === null) await row.update({ revokedAt: new Date(), revokedBy: actor.id });
    return done('share.revoked');
  });

/** Another last day; what was revoked stays so. */
export const prolongShare = (actor: Actor, id: string, until: string): Promise<Result<ShareView>> =>
  changed(actor, id, async (row) => {
    if (row.revokedAt !== null) return fail('conflict', { code: 'share.isRevoked' });
    const wrong = untilProblem(until);
    if (wrong) return wrong;
    await row.update({ until });
    return done('share.prolonged');
  });

type Kept = ShareRow & { update: (to: Partial<ShareRow>) => Promise<unknown> };

const changed = (
  actor: Actor,
  id: string,
  work: (row: Kept) => Promise<Result<string>>,
): Promise<Result<ShareView>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const found = await findShare(actor, id);
    if (!found.ok) return found;
    const { row, about } = found.value;
    const did = await work(row);
    if (!did.ok) return did;
    await record(actor, did.value, about.quote?.number ?? about.build?.outcome.partNumber ?? '', {
      for: row.forName === '' ? row.forAddress : row.forName,
      until: row.until,
    });
    const revision =
      row.revisionId === null
        ? null
        : await connected().records.revisions.findByPk(row.revisionId, { raw: true });
    return done(await viewOf(row, revision?.number ?? null));
  });
