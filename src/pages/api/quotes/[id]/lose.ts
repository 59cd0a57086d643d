import { loseInput } from '../../../../core/quoting';
import { loseQuote } from '../../../../services/revisions';
import { changingQuote, param } from '../../_answer';

export const POST = changingQuote(loseInput, (actor, input, context) =>
  loseQuote(actor, param(context, 'id'), input),
);
