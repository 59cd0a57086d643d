import { lineValuesInput } from '../../../../../core/quoting';
import { fillLines } from '../../../../../services/lines';
import { changing, param } from '../../../_answer';

export const PATCH = changing(lineValuesInput, (actor, input, context) => fillLines(actor, param(context, 'id'), input));
