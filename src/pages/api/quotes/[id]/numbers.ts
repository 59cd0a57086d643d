import { readNumbersInput } from '../../../../core/quoting';
import { readNumbers } from '../../../../services/quote-builds';
import { changing, param } from '../../_answer';

/** Reads only, but what is read is too long for an address. */
export const POST = changing(readNumbersInput, (actor, input, context) =>
  readNumbers(actor, param(context, 'id'), input),
);
