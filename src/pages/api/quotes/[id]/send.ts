import { versionInput } from '../../../../core/quoting';
import { sendQuote } from '../../../../services/revisions';
import { changing, param } from '../../_answer';

export const POST = changing(versionInput, (actor, input, context) => sendQuote(actor, param(context, 'id'), input));
