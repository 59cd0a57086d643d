import type { BuildCost, LineRates, LineTerms, PriceEntry } from '../pricing';

/** What a line is priced from besides what is typed on it; costs only for those who may see them. */
export interface LineBasis {
  granted: Omit<LineTerms, 'quantity' | 'hand' | 'term'>;
  /** Of a plain item: how its list prices it. */
  entry?: PriceEntry;
  /** Rates agreed on it instead of the list's. */
  agreed?: LineRates;
  /** Of one piece of a plain item, or of a build. */
  cost?: string | BuildCost;
  /** In kg. */
  mass?: string;
}
