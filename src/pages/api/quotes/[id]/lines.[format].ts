import { lineTable } from '../../../../services/line-table';
import { giving, param, revisionOf } from '../../_answer';

export const GET = giving((actor, context) => lineTable(actor, param(context, 'id'), param(context, 'format'), revisionOf(context.url)));
