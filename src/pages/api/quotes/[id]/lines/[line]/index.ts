import { changeLineInput, versionInput } from '../../../../../../core/quoting';
import { changeLine, removeLines } from '../../../../../../services/lines';
import { changingQuote, param } from '../../../../_answer';

export const PATCH = changingQuote(changeLineInput, (actor, input, context) =>
  changeLine(actor, param(context, 'id'), param(context, 'line'), input),
);
export const DELETE = changingQuote(versionInput, (actor, { version }, context) =>
  removeLines(actor, param(context, 'id'), { version, lines: [param(context, 'line')] }),
);
