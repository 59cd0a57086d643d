/** What an edit of a quote is answered with. */
import type { Answers } from './endpoint';
import type { QuoteChanges } from './quote-changes';
import type { QuoteView } from './quote-view';

/** The answer of an endpoint that changes a quote: all of it, or what differs from the view that one has. */
export const changedQuote: Answers<QuoteView | QuoteChanges> = {
  kind: 'quote',
  of: 'QuoteView | QuoteChanges',
};
