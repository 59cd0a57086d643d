import { versionInput } from '../../../../core/quoting';
import { sendQuote } from '../../../../services/revisions';
import { changingQuote, param } from '../../_answer';

export const POST = changingQuote(versionInput, (actor, input, context) =>
  sendQuote(actor, param(context, 'id'), input),
);
