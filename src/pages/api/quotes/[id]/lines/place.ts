import { placeLinesInput } from '../../../../../core/quoting';
import { placeLines } from '../../../../../services/lines';
import { changingQuote, param } from '../../../_answer';

export const POST = changingQuote(placeLinesInput, (actor, input, context) =>
  placeLines(actor, param(context, 'id'), input),
);
