import { type OfferInput } from '../../../contract';

/** What can be done about sign-offs. */
export interface SignOffActs {
  /** Each gives the sentence of a refusal. */
  onAsk: (reason: string) => Promise<string | null>;
  onAnswer: (
    id: string,
    answer: { answer: 'yes' | 'no' | 'counter'; comment: string; counter: OfferInput[] },
  ) => Promise<string | null>;
  onTake: (id: string) => Promise<string | null>;
}
