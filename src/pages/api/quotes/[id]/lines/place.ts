import { placeLinesInput } from '../../../../../core/quoting';
import { placeLines } from '../../../../../services/lines';
import { changing, param } from '../../../_answer';

export const POST = changing(placeLinesInput, (actor, input, context) => placeLines(actor, param(context, 'id'), input));
