import { versionInput } from '../../../../../../core/quoting';
import { takeCounter } from '../../../../../../services/sign-offs';
import { changing, param } from '../../../../_answer';

export const POST = changing(versionInput, (actor, input, context) => takeCounter(actor, param(context, 'id'), param(context, 'signOff'), input));
