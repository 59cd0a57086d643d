import { newLinesInput } from '../../../../../core/quoting';
import { addSeveral } from '../../../../../services/quote-builds';
import { changing, param } from '../../../_answer';

export const POST = changing(newLinesInput, (actor, input, context) => addSeveral(actor, param(context, 'id'), input));
