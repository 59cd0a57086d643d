import { changeLinesInput, linesInput, newLinesInput } from '../../../../../core/quoting';
import { changeLines, removeLines } from '../../../../../services/lines';
import { addSeveral } from '../../../../../services/quote-builds';
import { changing, param } from '../../../_answer';

export const POST = changing(newLinesInput, (actor, input, context) => addSeveral(actor, param(context, 'id'), input));
export const PATCH = changing(changeLinesInput, (actor, input, context) => changeLines(actor, param(context, 'id'), input));
export const DELETE = changing(linesInput, (actor, input, context) => removeLines(actor, param(context, 'id'), input));
