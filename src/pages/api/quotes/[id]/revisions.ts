import { reviseInput } from '../../../../core/quoting';
import { compareQuote, reviseQuote } from '../../../../services/revisions';
import { changingQuote, param, reading } from '../../_answer';

/** What differs between two (`?before=1&after=2`). */
export const GET = reading((actor, context) =>
  compareQuote(
    actor,
    param(context, 'id'),
    Number(context.url.searchParams.get('before')),
    Number(context.url.searchParams.get('after')),
  ),
);
export const POST = changingQuote(reviseInput, (actor, input, context) =>
  reviseQuote(actor, param(context, 'id'), input),
);
