import { answerSignOffInput } from '../../../../../../core/quoting';
import { answerSignOff } from '../../../../../../services/sign-offs';
import { changingQuote, param } from '../../../../_answer';

export const PATCH = changingQuote(answerSignOffInput, (actor, input, context) =>
  answerSignOff(actor, param(context, 'id'), param(context, 'signOff'), input),
);
