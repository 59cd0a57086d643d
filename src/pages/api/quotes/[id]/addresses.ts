import { quoteAddressInput } from '../../../../core/quoting';
import { changeAddress, knownAddresses } from '../../../../services/quote-addresses';
import { changingQuote, param, reading } from '../../_answer';

/** Where the customer is known to be. */
export const GET = reading((actor, context) => knownAddresses(actor, param(context, 'id')));
export const POST = changingQuote(quoteAddressInput, (actor, input, context) =>
  changeAddress(actor, param(context, 'id'), input),
);
