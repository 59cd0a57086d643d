import { rivalsInput } from '../../../../../core/quoting';
import { rivalLines } from '../../../../../services/rivals';
import { changing, param } from '../../../_answer';

export const POST = changing(rivalsInput, (actor, input, context) => rivalLines(actor, param(context, 'id'), input));
