import type { QuoteView } from '../../../contract';
import type { Market } from '../../../core/quotes';
import type { DescribedBuild } from '../../builds/build-summary';
import type { Sender } from '../../settings/house';

/** All that a quotation is made of. */
export interface QuotationGiven {
  quote: QuoteView;
  today: string;
  /** On which it is printed. */
  paper: Market['paper'];
  sender: Sender;
  /** What was chosen in each build, by its id. */
  builds: Readonly<Record<string, DescribedBuild>>;
}
