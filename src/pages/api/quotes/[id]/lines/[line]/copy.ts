import { versionInput } from '../../../../../../core/quoting';
import { copyLine } from '../../../../../../services/quote-builds';
import { changingQuote, param } from '../../../../_answer';

export const POST = changingQuote(versionInput, (actor, input, context) =>
  copyLine(actor, param(context, 'id'), param(context, 'line'), input),
);
