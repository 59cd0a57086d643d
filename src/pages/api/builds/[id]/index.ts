import { contentInput } from '../../../../core/quoting';
import { openBench } from '../../../../services/bench';
import { saveContent } from '../../../../services/builds';
import { removeVariant } from '../../../../services/variants';
import { changing, param, reading, removing } from '../../_answer';

export const GET = reading((actor, context) => openBench(actor, param(context, 'id')));
export const PUT = changing(contentInput, (actor, input, context) =>
  saveContent(actor, param(context, 'id'), input),
);
export const DELETE = removing((actor, context) => removeVariant(actor, param(context, 'id')));
