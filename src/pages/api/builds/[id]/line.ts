import { putOnQuoteInput } from '../../../../core/quoting';
import { putOnQuote } from '../../../../services/quote-builds';
import { changingQuote, param } from '../../_answer';

export const POST = changingQuote(putOnQuoteInput, (actor, input, context) =>
  putOnQuote(actor, param(context, 'id'), input),
);
