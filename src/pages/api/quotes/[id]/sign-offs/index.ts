import { askSignOffInput } from '../../../../../core/quoting';
import { askSignOff } from '../../../../../services/sign-offs';
import { changing, param } from '../../../_answer';

export const POST = changing(askSignOffInput, (actor, input, context) => askSignOff(actor, param(context, 'id'), input));
