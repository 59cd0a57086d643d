/** Builds as an actor may see and change them. */
import { connected, type BuildRow, type QuoteRow, type RevisionRow, type Stored } from '../data';
import { refusal, type Actor } from './actor';
import { done, fail, type Result } from './failure';
import { findQuote } from './quotes';
import { isReference } from './reference';

export interface Found {
  build: Stored<BuildRow>;
  quote: Stored<QuoteRow>;
  revision: RevisionRow;
}

/** A build that the actor may see; inside a transaction it is locked. */
export async function findBuild(actor: Actor, id: string): Promise<Result<Found>> {
  const { builds, revisions } = connected().records;
  const missing = fail('missing', { code: 'build.missing' });
  if (!isReference(id)) return missing;
  const build = await builds.findByPk(id, connected().within() ? { lock: true } : {});
  const quote = build && (await findQuote(actor, build.quoteId));
  const revision = quote && (await revisions.findByPk(build.revisionId));
  return build && quote && revision ? done({ build, quote, revision }) : missing;
}

/** A build that may be changed now. */
export async function findOpenBuild(actor: Actor, id: string): Promise<Result<Found>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const found = await findBuild(actor, id);
  return found.ok && found.value.revision.state !== 'draft' ? fail('conflict', { code: 'build.settled' }) : found;
}
