/** Builds as an actor may see and change them. */
import { connected, type BuildRow, type RevisionRow, type Stored } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { findQuote, holdQuote, type QuoteBase } from '../quotes/quote-state';
import { isReference } from '../kernel/reference';

/** A build with its quote and its revision. */
export interface Found {
  build: Stored<BuildRow>;
  quote: QuoteBase;
  revision: RevisionRow;
}

/**
 * A build that the actor may see; in a unit of work it is kept from being changed by others, and its quote
 * with it.
 */
export async function findBuild(actor: Actor, id: string): Promise<Result<Found>> {
  const { builds, revisions } = connected().records;
  const missing = fail('missing', { code: 'build.missing' });
  if (!isReference(id)) return missing;
  const held = connected().within();
  // Whoever holds both holds the quote first, so that nobody waits in a ring.
  const seen = await builds.findByPk(id);
  const quote = seen && (held ? await holdQuote(actor, seen.quoteId) : await findQuote(actor, seen.quoteId));
  const build = held && quote ? await builds.findByPk(id, { lock: true }) : seen;
  const revision = build && quote && (await revisions.findByPk(build.revisionId, { raw: true }));
  return build && quote && revision ? done({ build, quote, revision }) : missing;
}

/** A build that may be changed now. */
export async function findOpenBuild(actor: Actor, id: string): Promise<Result<Found>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const found = await findBuild(actor, id);
  return found.ok && found.value.revision.state !== 'draft'
    ? fail('conflict', { code: 'build.settled' })
    : found;
}
