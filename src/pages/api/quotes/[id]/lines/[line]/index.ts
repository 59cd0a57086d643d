import { changeLineInput, versionInput } from '../../../../../../core/quoting';
import { changeLine, removeLine } from '../../../../../../services/quotes';
import { changing, param } from '../../../../_answer';

export const PATCH = changing(changeLineInput, (actor, input, context) => changeLine(actor, param(context, 'id'), param(context, 'line'), input));
export const DELETE = changing(versionInput, (actor, { version }, context) => removeLine(actor, param(context, 'id'), param(context, 'line'), version));
