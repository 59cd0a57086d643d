import { loseInput } from '../../../../core/quoting';
import { loseQuote } from '../../../../services/revisions';
import { changing, param } from '../../_answer';

export const POST = changing(loseInput, (actor, input, context) => loseQuote(actor, param(context, 'id'), input));
