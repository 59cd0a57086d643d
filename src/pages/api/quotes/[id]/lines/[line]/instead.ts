import { versionInput } from '../../../../../../core/quoting';
import { takeInstead } from '../../../../../../services/rivals';
import { changingQuote, param } from '../../../../_answer';

export const POST = changingQuote(versionInput, (actor, input, context) =>
  takeInstead(actor, param(context, 'id'), param(context, 'line'), input),
);
