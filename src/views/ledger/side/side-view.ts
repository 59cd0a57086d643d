/** What the pane beside the lines shows. */
import { type Figure } from '../../../core/pricing';
import type { LeaseInput, LineView, QuoteView, RatesInput } from '../../../contract';
import { type SignOffActs } from './sign-off-acts';

/**
 * What the side pane shows: the walk of a line or of the quote, and how figures came about, the last asked
 * last; sign-off, all revisions, what was sent and answered, or what colleagues say.
 */
export interface SideView {
  is: 'walk' | 'signOff' | 'revisions' | 'deal' | 'sent' | 'colleagues';
  line?: string | undefined;
  asked: readonly Figure[];
}

/** What the pane shows and does. */
export interface SideProps {
  view: QuoteView;
  side: SideView;
  onChange: (side: SideView | undefined) => void;
  signing: SignOffActs;
  /** Something at the side made another quote of it: an order, another owner, a special part. */
  onOtherwise: () => void;
  onLease: (lease: LeaseInput | null) => Promise<string | null>;
  onRates: (line: LineView, rates: RatesInput | null) => Promise<string | null>;
}
