/** Builds as an actor may see and change them. */
import type { Transaction } from 'sequelize';
import { connected, type BuildRow, type QuoteRow, type RevisionRow, type Stored } from '../data';
import { refusal, type Actor } from './actor';
import { done, fail, type Result } from './failure';
import { findQuote } from './quotes';

export interface Found {
  build: Stored<BuildRow>;
  quote: Stored<QuoteRow>;
  revision: RevisionRow;
}

/** A build that the actor may see; inside a transaction it is locked. */
export async function findBuild(actor: Actor, id: string, transaction: Transaction | null = null): Promise<Result<Found>> {
  const { builds, revisions } = connected().records;
  const missing = fail('missing', { code: 'build.missing' });
  if (!/^[0-9a-f-]{36}$/i.test(id)) return missing;
  const build = await builds.findByPk(id, { transaction, ...(transaction ? { lock: transaction.LOCK.UPDATE } : {}) });
  const quote = build && (await findQuote(actor, build.quoteId, transaction));
  const revision = quote && (await revisions.findByPk(build.revisionId, { transaction }));
  return build && quote && revision ? done({ build, quote, revision }) : missing;
}

/** A build that may be changed now. */
export async function findOpenBuild(actor: Actor, id: string, transaction: Transaction): Promise<Result<Found>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const found = await findBuild(actor, id, transaction);
  return found.ok && found.value.revision.state !== 'draft' ? fail('conflict', { code: 'build.settled' }) : found;
}
