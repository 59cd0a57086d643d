import type { QuoteView } from '../../contract';
import type { DescribedBuild } from '../build-summary';
import type { Sender } from '../house';

export interface QuotationGiven {
  quote: QuoteView;
  today: string;
  sender: Sender;
  /** What was chosen in each build, by its id. */
  builds: Readonly<Record<string, DescribedBuild>>;
}
