import { quoteContactInput } from '../../../../core/quoting';
import { changeContact, knownContacts } from '../../../../services/quote-contacts';
import { changing, param, reading } from '../../_answer';

/** Who is known at the customer. */
export const GET = reading((actor, context) => knownContacts(actor, param(context, 'id')));
export const POST = changing(quoteContactInput, (actor, input, context) => changeContact(actor, param(context, 'id'), input));
