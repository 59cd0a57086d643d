import { rivalsInput } from '../../../../../core/quoting';
import { rivalLines } from '../../../../../services/rivals';
import { changingQuote, param } from '../../../_answer';

export const POST = changingQuote(rivalsInput, (actor, input, context) =>
  rivalLines(actor, param(context, 'id'), input),
);
