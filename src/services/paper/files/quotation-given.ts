import type { QuoteView } from '../../../contract';
import type { DescribedBuild } from '../../builds/build-summary';
import type { Sender } from '../../settings/house';

/** All that a quotation is made of. */
export interface QuotationGiven {
  quote: QuoteView;
  today: string;
  sender: Sender;
  /** What was chosen in each build, by its id. */
  builds: Readonly<Record<string, DescribedBuild>>;
}
