import { askSignOffInput } from '../../../../../core/quoting';
import { askSignOff } from '../../../../../services/sign-offs';
import { changingQuote, param } from '../../../_answer';

export const POST = changingQuote(askSignOffInput, (actor, input, context) =>
  askSignOff(actor, param(context, 'id'), input),
);
