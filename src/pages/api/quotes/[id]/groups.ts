import { renameGroupInput } from '../../../../core/quoting';
import { renameGroup } from '../../../../services/lines';
import { changingQuote, param } from '../../_answer';

export const PATCH = changingQuote(renameGroupInput, (actor, input, context) =>
  renameGroup(actor, param(context, 'id'), input),
);
