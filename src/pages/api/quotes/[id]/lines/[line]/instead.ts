import { versionInput } from '../../../../../../core/quoting';
import { takeInstead } from '../../../../../../services/rivals';
import { changing, param } from '../../../../_answer';

export const POST = changing(versionInput, (actor, input, context) => takeInstead(actor, param(context, 'id'), param(context, 'line'), input));
