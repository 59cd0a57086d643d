/** A share as it is opened by its token: what it is of, and by whom it is shown. */
import type { Model } from 'sequelize';
import { connected, type BuildRow, type RevisionRow, type ShareRow, type UserRow } from '../../data';
import { shareState } from '../../core/sending';
import { tokenPattern } from '../../contract';
import type { Actor } from '../access/actor';
import { actorOf, hashToken } from '../access/sessions';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';

/** A share that opens. What it shows is read as its owner sees it, and told in its language. */
export interface Opened {
  share: ShareRow;
  /** Whose quote or build it is. */
  owner: Actor;
  quote: { id: string; number: string; customerId: string } | null;
  revision: RevisionRow | null;
  build: BuildRow | null;
  /** The newest revision is another one. */
  newer: boolean;
}

/** The share of a token; one that ended or was revoked says so, and nothing of what it showed. */
export async function openShare(token: string): Promise<Result<Opened>> {
  const missing = fail('missing', { code: 'shared.missing' });
  if (!tokenPattern.test(token)) return missing;
  const share = await connected().records.shares.findOne({
    where: { tokenHash: hashToken(token) },
    raw: true,
  });
  if (!share) return missing;
  const state = shareState({ until: share.until, revoked: share.revokedAt !== null }, today());
  return state === 'open' ? opened(share) : fail('missing', { code: `shared.${state}` });
}

/** A share that the house itself goes by, whether it still opens or not. */
export async function openById(id: string): Promise<Result<Opened>> {
  const share = await connected().records.shares.findByPk(id, { raw: true });
  return share ? opened(share) : fail('missing', { code: 'shared.missing' });
}

async function opened(share: ShareRow): Promise<Result<Opened>> {
  const { quotes, revisions, builds, users } = connected().records;
  const build = share.buildId === null ? null : await builds.findByPk(share.buildId, { raw: true });
  const revision =
    share.revisionId === null ? null : await revisions.findByPk(share.revisionId, { raw: true });
  const quote = share.quoteId === null ? null : await quotes.findByPk(share.quoteId, { raw: true });
  const owner = await users.findByPk(quote?.ownerId ?? build?.ownerId ?? share.madeBy, { raw: true });
  if (!owner || (!build && !revision)) return fail('missing', { code: 'shared.missing' });
  const newest =
    revision && (await revisions.max<number, Model>('number', { where: { quoteId: revision.quoteId } }));
  return done({
    share,
    owner: inLanguage(owner, share.language),
    quote: quote && { id: quote.id, number: quote.number, customerId: quote.customerId },
    revision,
    build,
    newer: revision !== null && newest !== revision.number,
  });
}

const inLanguage = (row: UserRow, language: string): Actor => ({
  ...actorOf(row),
  language: language as Actor['language'],
});
