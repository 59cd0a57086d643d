import { newQuoteInput } from '../../../core/quoting';
import { done } from '../../../services/failure';
import { listQuotes, openQuote } from '../../../services/quotes';
import { changing, reading } from '../_answer';

export const GET = reading(async (actor) => done(await listQuotes(actor)));
export const POST = changing(newQuoteInput, openQuote);
