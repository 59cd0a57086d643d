import { bestInput } from '../../../../core/quoting';
import { bestBuild } from '../../../../services/bench';
import { changing, param } from '../../_answer';

/** Changes nothing, but what is asked is too long for an address. */
export const POST = changing(bestInput, (actor, input, context) =>
  bestBuild(actor, param(context, 'id'), input),
);
