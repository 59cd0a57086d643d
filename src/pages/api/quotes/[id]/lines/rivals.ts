import { rivalsInput } from '../../../../../core/quoting';
import { rivalLines } from '../../../../../services/lines';
import { changing, param } from '../../../_answer';

export const POST = changing(rivalsInput, (actor, input, context) => rivalLines(actor, param(context, 'id'), input));
