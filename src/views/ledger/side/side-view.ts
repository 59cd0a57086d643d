/** What the pane beside the lines shows. */
import { type Figure } from '../../../core/pricing';
import type { LeaseInput, LineView, QuoteView, RatesInput } from '../../../contract';
import { type SignOffActs } from './sign-off-acts';

/**
 * What the side pane shows: the walk of a line or of the quote, and how figures came about, the last asked
 * last; sign-off, or all revisions.
 */
export interface SideView {
  is: 'walk' | 'signOff' | 'revisions' | 'deal';
  line?: string | undefined;
  asked: readonly Figure[];
}

/** What the pane shows and does. */
export interface SideProps {
  view: QuoteView;
  side: SideView;
  onChange: (side: SideView | undefined) => void;
  signing: SignOffActs;
  onLease: (lease: LeaseInput | null) => Promise<string | null>;
  onRates: (line: LineView, rates: RatesInput | null) => Promise<string | null>;
}
