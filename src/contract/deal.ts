/** What a quote means for who sells it. */
import type { ExactText } from '../core/exact';
import type { Texts } from '../core/model';

/** What a quote means for who sells it. Money is in the quote's currency unless said otherwise. */
export interface DealView {
  /**
   * What the customer, or the dealer who buys, has been granted by class or by name, whether it holds today
   * or not.
   */
  agreements: AgreementView[];
  /** Of the year, in EUR: what is won, and what this quote would add. */
  quota?: { target: ExactText; won: ExactText; open: ExactText; weight: ExactText; adds: ExactText };
  /** `target` is what the quote would net to at target discounts; `above` is what it nets to beyond that. */
  commission?: {
    baseRate: ExactText;
    higherRate: ExactText;
    net: ExactText;
    target: ExactText;
    above: ExactText;
    amount: ExactText;
    lines: LineAtTarget[];
  };
}

/** What a line would net to at the discount that is expected of who sells it. */
export interface LineAtTarget {
  position: number;
  rate: ExactText;
  net: ExactText;
}

/** What a customer was granted, and the lines that it concerns. */
export interface AgreementView {
  name: Texts;
  /** The item or family that it is for; null for everything. */
  of: Texts | null;
  /** A share off, or a price of its own for one piece in the quote's currency. */
  rate?: ExactText;
  price?: ExactText;
  from?: string;
  to?: string;
  holds: 'now' | 'notYet' | 'over';
  /** It counts even where another would be better. */
  fixed: boolean;
  /** Positions of the lines that it concerns. */
  lines: number[];
}
