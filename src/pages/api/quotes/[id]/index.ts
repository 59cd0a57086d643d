import { seeQuote } from '../../../../services/quotes';
import { param, reading } from '../../_answer';

export const GET = reading((actor, context) => seeQuote(actor, param(context, 'id')));
