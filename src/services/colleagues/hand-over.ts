/** A quote is handed over: it is a colleague's from then on, with all that waits for its owner. */
import { randomUUID } from 'node:crypto';
import type { ColleaguesView, HandOverInput } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { tell } from '../kernel/live';
import { inTransaction, record } from '../kernel/unit-of-work';
import { changeQuote } from '../quotes/quotes';
import { holdQuote } from '../quotes/quote-state';
import { nameOf, reference } from '../settings/reference-data';
import { colleaguesOf } from './people';
import { colleaguesView, mayHandOver } from './view';

/**
 * Hands it over, whatever state it is in: limits are the new owner's from then on, and so are days to follow up on and
 * questions whose answers are still to come.
 */
export const handOver = (
  actor: Actor,
  id: string,
  { version, to, words }: HandOverInput,
): Promise<Result<ColleaguesView>> =>
  inTransaction(async () => {
    const seen = await holdQuote(actor, id);
    if (!seen) return fail('missing', { code: 'quote.missing' });
    const from = seen.ownerId;
    const changed = await changeQuote(
      actor,
      id,
      version,
      async ({ quote }) => {
        if (!mayHandOver(actor, quote)) return fail('forbidden', { code: 'colleague.notYours' });
        const { people } = await reference();
        const heir = (await colleaguesOf(actor)).find((each) => each.id === to && each.quotes);
        const own = to === actor.id ? people.get(to) : undefined;
        if (to === from || !(heir ?? own)) return fail('invalid', { code: 'colleague.unknown', field: 'to' });
        const { quotes, quoteNotes, followUps, quoteRequests } = connected().records;
        await quotes.update({ ownerId: to }, { where: { id } });
        quote.ownerId = to;
        await followUps.update({ forUser: to }, { where: { quoteId: id, forUser: from, doneAt: null } });
        await quoteRequests.update({ madeBy: to }, { where: { quoteId: id, madeBy: from, closedAt: null } });
        await quoteNotes.create({
          id: randomUUID(),
          quoteId: id,
          words,
          handedFrom: from,
          handedTo: to,
          madeBy: actor.id,
          madeAt: new Date(),
        });
        return done(null);
      },
      { states: ['draft', 'sent', 'accepted', 'lost'], steps: false },
    );
    if (!changed.ok) return changed;
    const known = await reference();
    await record(actor, 'quote.handedOver', seen.number, {
      from: nameOf(known, from),
      to: nameOf(known, to),
    });
    await tell([from, to], { kind: 'colleague', quote: id });
    return done(await colleaguesView(actor, { ...seen, ownerId: to }));
  });
