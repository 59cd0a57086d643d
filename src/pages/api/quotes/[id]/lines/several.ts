import { changeLinesInput, linesInput, newLinesInput } from '../../../../../core/quoting';
import { changeLines, removeLines } from '../../../../../services/lines';
import { addSeveral } from '../../../../../services/quote-builds';
import { changingQuote, param } from '../../../_answer';

export const POST = changingQuote(newLinesInput, (actor, input, context) =>
  addSeveral(actor, param(context, 'id'), input),
);
export const PATCH = changingQuote(changeLinesInput, (actor, input, context) =>
  changeLines(actor, param(context, 'id'), input),
);
export const DELETE = changingQuote(linesInput, (actor, input, context) =>
  removeLines(actor, param(context, 'id'), input),
);
