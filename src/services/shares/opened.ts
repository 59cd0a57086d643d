/** A share as it is opened by its token: what it is of, and by whom it is shown. */
import { QueryTypes } from 'sequelize';
import { connected, type BuildRow, type RevisionRow, type ShareRow, type UserRow } from '../../data';
import { shareState } from '../../core/sending';
import { tokenPattern } from '../../contract';
import type { Actor } from '../access/actor';
import { actorOf, hashToken } from '../access/sessions';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';

/** What is read of a revision that is shared. */
export type SharedRevision = Pick<RevisionRow, 'id' | 'quoteId' | 'number' | 'state' | 'validUntil'>;

/** A share that opens. What it shows is read as its owner sees it, and told in its language. */
export interface Opened {
  share: ShareRow;
  /** Whose quote or build it is. */
  owner: Actor;
  quote: { id: string; number: string; customerId: string } | null;
  revision: SharedRevision | null;
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

/** What a share is of and who shows it, asked for in one: links are opened by many at once. */
async function opened(share: ShareRow): Promise<Result<Opened>> {
  const { sequelize, records } = connected();
  const build = share.buildId === null ? null : await records.builds.findByPk(share.buildId, { raw: true });
  const [row] = await sequelize.query<{
    quote: Opened['quote'];
    revision: SharedRevision | null;
    owner: UserRow;
    newest: number | null;
  }>(
    `select case when q.id is not null then
         jsonb_build_object('id', q.id, 'number', q.number, 'customerId', q.customer_id) end as quote,
       case when r.id is not null then
         jsonb_build_object('id', r.id, 'quoteId', r.quote_id, 'number', r.number, 'state', r.state,
           'validUntil', r.valid_until) end as revision,
       jsonb_build_object('id', u.id, 'name', u.name, 'email', u.email, 'role', u.role, 'language', u.language,
         'dealerId', u.dealer_id, 'preferences', u.preferences) as owner,
       (select max(number) from quote_revisions where quote_id = r.quote_id) as newest
     from (select $1::uuid as quote, $2::uuid as revision, $3::uuid as other) asked
     left join quotes q on q.id = asked.quote left join quote_revisions r on r.id = asked.revision
     join users u on u.id = coalesce(q.owner_id, asked.other)`,
    {
      bind: [share.quoteId, share.revisionId, build?.ownerId ?? share.madeBy],
      type: QueryTypes.SELECT,
    },
  );
  if (!row || (!build && !row.revision)) return fail('missing', { code: 'shared.missing' });
  const { owner, quote, revision, newest } = row;
  return done({
    share,
    owner: inLanguage(owner, share.language),
    quote,
    revision,
    build,
    newer: revision !== null && newest !== revision.number,
  });
}

const inLanguage = (row: UserRow, language: string): Actor => ({
  ...actorOf(row),
  language: language as Actor['language'],
});
