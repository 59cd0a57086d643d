import { lineValuesInput } from '../../../../../core/quoting';
import { fillLines } from '../../../../../services/lines';
import { changingQuote, param } from '../../../_answer';

export const PATCH = changingQuote(lineValuesInput, (actor, input, context) =>
  fillLines(actor, param(context, 'id'), input),
);
