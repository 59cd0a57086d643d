import { renameGroupInput } from '../../../../core/quoting';
import { renameGroup } from '../../../../services/lines';
import { changing, param } from '../../_answer';

export const PATCH = changing(renameGroupInput, (actor, input, context) => renameGroup(actor, param(context, 'id'), input));
