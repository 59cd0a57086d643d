import { versionInput } from '../../../../../../core/quoting';
import { takeCounter } from '../../../../../../services/sign-offs';
import { changingQuote, param } from '../../../../_answer';

export const POST = changingQuote(versionInput, (actor, input, context) =>
  takeCounter(actor, param(context, 'id'), param(context, 'signOff'), input),
);
