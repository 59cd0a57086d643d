import { variantInput } from '../../../../core/quoting';
import { addVariant, seeVariants } from '../../../../services/variants';
import { changing, param, reading } from '../../_answer';

export const GET = reading((actor, context) => seeVariants(actor, param(context, 'id')));
export const POST = changing(variantInput, (actor, input, context) =>
  addVariant(actor, param(context, 'id'), input),
);
