import { sendVariantsInput } from '../../../../core/quoting';
import { sendVariants } from '../../../../services/variants';
import { changing, param } from '../../_answer';

export const POST = changing(sendVariantsInput, (actor, input, context) => sendVariants(actor, param(context, 'id'), input));
