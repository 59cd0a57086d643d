import { quoteContactInput } from '../../../../core/quoting';
import { changeContact, knownContacts } from '../../../../services/quote-contacts';
import { changingQuote, param, reading } from '../../_answer';

/** Who is known at the customer. */
export const GET = reading((actor, context) => knownContacts(actor, param(context, 'id')));
export const POST = changingQuote(quoteContactInput, (actor, input, context) =>
  changeContact(actor, param(context, 'id'), input),
);
