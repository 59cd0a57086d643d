import { newLineInput } from '../../../../../core/quoting';
import { addByNumber } from '../../../../../services/quote-builds';
import { changingQuote, param } from '../../../_answer';

export const POST = changingQuote(newLineInput, (actor, input, context) =>
  addByNumber(actor, param(context, 'id'), input),
);
