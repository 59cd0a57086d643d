import { answerSignOffInput } from '../../../../../../core/quoting';
import { answerSignOff } from '../../../../../../services/sign-offs';
import { changing, param } from '../../../../_answer';

export const PATCH = changing(answerSignOffInput, (actor, input, context) => answerSignOff(actor, param(context, 'id'), param(context, 'signOff'), input));
