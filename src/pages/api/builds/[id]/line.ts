import { putOnQuoteInput } from '../../../../core/quoting';
import { putOnQuote } from '../../../../services/quote-builds';
import { changing, param } from '../../_answer';

export const POST = changing(putOnQuoteInput, (actor, input, context) => putOnQuote(actor, param(context, 'id'), input));
