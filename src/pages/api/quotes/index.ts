import { newQuoteInput, quoteListInput } from '../../../core/quoting';
import { listQuotes } from '../../../services/quote-list';
import { openQuote } from '../../../services/quotes';
import { changing, listing } from '../_answer';

/** A page of quotes (`?find=&states=&mine=&sort=&descending=&page=`). */
export const GET = listing(quoteListInput, listQuotes);
export const POST = changing(newQuoteInput, openQuote);
