import { newLineInput } from '../../../../../core/quoting';
import { addByNumber } from '../../../../../services/quote-builds';
import { changing, param } from '../../../_answer';

export const POST = changing(newLineInput, (actor, input, context) => addByNumber(actor, param(context, 'id'), input));
