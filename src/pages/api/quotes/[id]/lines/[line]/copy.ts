import { versionInput } from '../../../../../../core/quoting';
import { copyLine } from '../../../../../../services/quote-builds';
import { changing, param } from '../../../../_answer';

export const POST = changing(versionInput, (actor, input, context) => copyLine(actor, param(context, 'id'), param(context, 'line'), input));
