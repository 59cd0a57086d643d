import { lastPrices } from '../../../../../../services/last-prices';
import { param, reading } from '../../../../_answer';

export const GET = reading((actor, context) =>
  lastPrices(actor, param(context, 'id'), param(context, 'line')),
);
