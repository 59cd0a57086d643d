/** What is easily mistaken about how a line's price came about, said beside its figures. */
import { exact } from '../../exact';
import type { LinePrice } from '../types';
import type { PriceEntry } from '../list/methods';

/**
 * pieceOnly: money typed or agreed for one piece leaves what comes once and what recurs as they are.
 * withRest: a share or margin typed holds for these too. surchargeOfList: inside a bundle a surcharge counts
 * from list, not from what is left there. perPiece: the formula gives the price of one piece.
 */
export type PriceNote = 'pieceOnly' | 'withRest' | 'surchargeOfList' | 'perPiece';

/** What is easily mistaken about how a price came about. */
export function notesOn(
  { steps, once, subscriptions = [] }: LinePrice,
  method?: PriceEntry['method'],
): PriceNote[] {
  const rest = (once && !exact(once.list).isZero()) || subscriptions.length > 0;
  const typed = steps.find(({ kind }) => kind === 'discount')?.typed?.by;
  const agreedMoney = steps.some(
    ({ kind, rate, name }) =>
      (kind === 'agreement' || kind === 'promotion') && name !== undefined && rate === undefined,
  );
  return [
    ...(rest && (agreedMoney || typed === 'amount' || typed === 'net') ? (['pieceOnly'] as const) : []),
    ...(rest && (typed === 'rate' || typed === 'margin') ? (['withRest'] as const) : []),
    ...(steps.some(({ kind }) => kind === 'surcharge') && steps.some(({ kind }) => kind === 'inside')
      ? (['surchargeOfList'] as const)
      : []),
    ...(method === 'formula' ? (['perPiece'] as const) : []),
  ];
}
