import { readNumberInput } from '../../../../core/quoting';
import { readForBuild } from '../../../../services/read-back';
import { changing, param } from '../../_answer';

/** Changes nothing; a part number holds what has no place in an address. */
export const POST = changing(readNumberInput, (actor, input, context) =>
  readForBuild(actor, param(context, 'id'), input),
);
