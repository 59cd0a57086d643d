import { seeDeal } from '../../../../services/deal';
import { param, reading } from '../../_answer';

export const GET = reading((actor, context) => seeDeal(actor, param(context, 'id')));
