import { quotation } from '../../../../services/quotation';
import { giving, param, revisionOf } from '../../_answer';

export const GET = giving((actor, context) =>
  quotation(actor, param(context, 'id'), revisionOf(context.url)),
);
