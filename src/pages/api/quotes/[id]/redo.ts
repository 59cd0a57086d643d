import { versionInput } from '../../../../core/quoting';
import { step } from '../../../../services/undo';
import { changingQuote, param } from '../../_answer';

export const POST = changingQuote(versionInput, (actor, input, context) =>
  step(actor, param(context, 'id'), 'redo', input),
);
