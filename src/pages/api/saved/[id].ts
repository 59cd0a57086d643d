import { changeSavedInput } from '../../../core/quoting';
import { changeSaved, removeSaved } from '../../../services/saved-builds';
import { changing, param, removing } from '../_answer';

export const PATCH = changing(changeSavedInput, (actor, input, context) =>
  changeSaved(actor, param(context, 'id'), input),
);
export const DELETE = removing((actor, context) => removeSaved(actor, param(context, 'id')));
