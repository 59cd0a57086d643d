import { versionInput } from '../../../../core/quoting';
import { acceptQuote } from '../../../../services/orders';
import { changing, param } from '../../_answer';

export const POST = changing(versionInput, (actor, { version }, context) =>
  acceptQuote(actor, param(context, 'id'), version),
);
