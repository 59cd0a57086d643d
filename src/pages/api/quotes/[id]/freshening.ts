import { linesInput } from '../../../../core/quoting';
import { freshen, seeFreshening } from '../../../../services/freshen';
import { changingQuote, param, reading } from '../../_answer';

/** What freshening would change. */
export const GET = reading((actor, context) => seeFreshening(actor, param(context, 'id')));
export const POST = changingQuote(linesInput, (actor, input, context) =>
  freshen(actor, param(context, 'id'), input),
);
