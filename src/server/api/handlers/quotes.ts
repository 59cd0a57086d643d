import type { quotes } from '../../../contract/all';
import { changeCustomer, seeCustomerChange } from '../../../services/quotes/customer-change';
import { seeDeal } from '../../../services/quotes/figures/deal';
import { done } from '../../../services/kernel/failure';
import { freshen, seeFreshening } from '../../../services/quotes/history/freshen';
import { acceptQuote } from '../../../services/orders/orders';
import { changeAddress, knownAddresses } from '../../../services/quotes/quote-addresses';
import { changeContact, knownContacts } from '../../../services/quotes/quote-contacts';
import { listQuotes } from '../../../services/quotes/quote-list';
import { changeWhole, openQuote, seeQuote } from '../../../services/quotes/quotes';
import { compareQuote, loseQuote, reviseQuote, sendQuote } from '../../../services/quotes/history/revisions';
import { step } from '../../../services/quotes/history/undo';
import { sendVariants } from '../../../services/builds/variants';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const quotesHandlers: Handlers<typeof quotes> = {
  'GET /quotes': async ({ actor, query }) => done(await listQuotes(actor, query)),
  'POST /quotes': ({ actor, input }) => openQuote(actor, input),
  'GET /quotes/{id}': ({ actor, at, query }) => seeQuote(actor, at.id, query.revision),
  'PATCH /quotes/{id}': ({ actor, at, input }) => changeWhole(actor, at.id, input),
  'GET /quotes/{id}/deal': ({ actor, at }) => seeDeal(actor, at.id),
  'GET /quotes/{id}/addresses': ({ actor, at }) => knownAddresses(actor, at.id),
  'POST /quotes/{id}/addresses': ({ actor, at, input }) => changeAddress(actor, at.id, input),
  'GET /quotes/{id}/contacts': ({ actor, at }) => knownContacts(actor, at.id),
  'POST /quotes/{id}/contacts': ({ actor, at, input }) => changeContact(actor, at.id, input),
  'GET /quotes/{id}/customer': ({ actor, at, query }) => seeCustomerChange(actor, at.id, query.to),
  'POST /quotes/{id}/customer': ({ actor, at, input }) => changeCustomer(actor, at.id, input),
  'GET /quotes/{id}/freshening': ({ actor, at }) => seeFreshening(actor, at.id),
  'POST /quotes/{id}/freshening': ({ actor, at, input }) => freshen(actor, at.id, input),
  'GET /quotes/{id}/revisions': ({ actor, at, query }) =>
    compareQuote(actor, at.id, query.before, query.after),
  'POST /quotes/{id}/revisions': ({ actor, at, input }) => reviseQuote(actor, at.id, input),
  'POST /quotes/{id}/variants': ({ actor, at, input }) => sendVariants(actor, at.id, input),
  'POST /quotes/{id}/send': ({ actor, at, input }) => sendQuote(actor, at.id, input),
  'POST /quotes/{id}/lose': ({ actor, at, input }) => loseQuote(actor, at.id, input),
  'POST /quotes/{id}/accept': ({ actor, at, input: { version } }) => acceptQuote(actor, at.id, version),
  'POST /quotes/{id}/undo': ({ actor, at, input }) => step(actor, at.id, 'undo', input),
  'POST /quotes/{id}/redo': ({ actor, at, input }) => step(actor, at.id, 'redo', input),
};
