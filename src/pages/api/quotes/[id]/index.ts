import { changeQuoteInput } from '../../../../core/quoting';
import { changeWhole, seeQuote } from '../../../../services/quotes';
import { changingQuote, param, reading, revisionOf } from '../../_answer';

export const GET = reading((actor, context) =>
  seeQuote(actor, param(context, 'id'), revisionOf(context.url)),
);
export const PATCH = changingQuote(changeQuoteInput, (actor, input, context) =>
  changeWhole(actor, param(context, 'id'), input),
);
