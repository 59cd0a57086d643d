import { newLineInput } from '../../../../../core/quoting';
import { addItem } from '../../../../../services/quotes';
import { changing, param } from '../../../_answer';

export const POST = changing(newLineInput, (actor, input, context) => addItem(actor, param(context, 'id'), input));
