import { lineTable } from '../../../../services/line-table';
import { giving, param, revisionOf } from '../../_answer';

export const GET = giving((actor, context) =>
  lineTable(
    actor,
    param(context, 'id'),
    param(context, 'format'),
    context.url.searchParams.has('internal') ? 'internal' : 'customer',
    revisionOf(context.url),
  ),
);
