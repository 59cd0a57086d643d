/** Builds as an actor may see and change them. */
import { connected, type BuildRow, type Stored } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { findQuote, holdQuote } from '../quotes/quote-state';
import { isOpen, type Home } from './home';

/** A build with where it belongs. */
export interface Found {
  build: Stored<BuildRow>;
  home: Home;
}

/**
 * A build that the actor may see: of a quote that they may see, or their own. In a unit of work it is kept
 * from being changed by others, and its quote with it.
 */
export async function findBuild(actor: Actor, id: string): Promise<Result<Found>> {
  const { builds } = connected().records;
  const missing = fail('missing', { code: 'build.missing' });
  if (!isReference(id)) return missing;
  // Whoever holds both holds the quote first, so that nobody waits in a ring.
  const seen = await builds.findByPk(id);
  const home = seen && (await homeOf(actor, seen));
  const build = connected().within() && home ? await builds.findByPk(id, { lock: true }) : seen;
  return build && home ? done({ build, home }) : missing;
}

/** Where a build belongs, as far as the actor may see it. */
async function homeOf(actor: Actor, build: BuildRow): Promise<Home | null> {
  const { quoteId, revisionId, ownerId, pricedFor, context } = build;
  if (ownerId !== null && pricedFor)
    return ownerId === actor.id
      ? { of: 'person', ownerId, pricedFor, region: context.values.region ?? '' }
      : null;
  if (quoteId === null || revisionId === null) return null;
  const quote = connected().within() ? await holdQuote(actor, quoteId) : await findQuote(actor, quoteId);
  const revision = quote && (await connected().records.revisions.findByPk(revisionId, { raw: true }));
  return quote && revision ? { of: 'quote', quote, revision } : null;
}

/** A build that may be changed now. */
export async function findOpenBuild(actor: Actor, id: string): Promise<Result<Found>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const found = await findBuild(actor, id);
  return found.ok && !isOpen(found.value.home) ? fail('conflict', { code: 'build.settled' }) : found;
}
