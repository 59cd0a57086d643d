import { placeLineInput } from '../../../../../../core/quoting';
import { placeLine } from '../../../../../../services/quotes';
import { changing, param } from '../../../../_answer';

export const POST = changing(placeLineInput, (actor, input, context) => placeLine(actor, param(context, 'id'), param(context, 'line'), input));
