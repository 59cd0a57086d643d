import { versionInput } from '../../../../core/quoting';
import { moveBuild, seeMove } from '../../../../services/moves';
import { changing, param, reading } from '../../_answer';

export const GET = reading((actor, context) => seeMove(actor, param(context, 'id')));
export const POST = changing(versionInput, (actor, input, context) =>
  moveBuild(actor, param(context, 'id'), input),
);
