import { drawingFile } from '../../../../services/drawings';
import { giving, param } from '../../_answer';

export const GET = giving((actor, context) =>
  drawingFile(
    actor,
    param(context, 'id'),
    param(context, 'format'),
    context.url.searchParams.get('view') ?? '',
  ),
);
