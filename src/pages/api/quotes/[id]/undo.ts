import { versionInput } from '../../../../core/quoting';
import { step } from '../../../../services/undo';
import { changing, param } from '../../_answer';

export const POST = changing(versionInput, (actor, input, context) => step(actor, param(context, 'id'), 'undo', input));
