import { decisionsInput } from '../../../../core/quoting';
import { openBench, saveDecisions } from '../../../../services/builds';
import { changing, param, reading } from '../../_answer';

export const GET = reading((actor, context) => openBench(actor, param(context, 'id')));
export const PUT = changing(decisionsInput, (actor, input, context) => saveDecisions(actor, param(context, 'id'), input));
