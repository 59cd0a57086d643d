import { sendVariantsInput } from '../../../../core/quoting';
import { sendVariants } from '../../../../services/variants';
import { changingQuote, param } from '../../_answer';

export const POST = changingQuote(sendVariantsInput, (actor, input, context) =>
  sendVariants(actor, param(context, 'id'), input),
);
