/** Sign-offs as they travel, and where a quote stands with its limits. */
import type { ExactText } from '../core/exact';
import type { Texts } from '../core/model';
import type { Judged, Limit } from '../core/pricing';

/** A sign-off as it was asked for and answered. */
export interface SignOffView {
  id: string;
  /** Of who signs. */
  role: string;
  reason: string;
  state: 'asked' | 'yes' | 'no' | 'counter' | 'over';
  askedBy: string;
  askedAt: string;
  answeredBy?: string;
  /** In whose place. */
  answeredFor?: string;
  answeredAt?: string;
  comment: string;
  /**
   * Lines concerned, with the figures that were asked for; `offer` is the discount by hand that would be
   * signed, `refused` a line that is not.
   */
  lines: {
    line: string;
    position: number;
    discount: ExactText;
    margin?: ExactText;
    offer?: ExactText;
    refused?: true;
  }[];
}

/** Where a quote stands with the limits of who owns it. */
export interface SignOffsOfQuote {
  limits: Limit[];
  judged: Omit<Judged, 'limit'>[];
  /** By role that must sign: positions of the lines, names of the policies, and whether a sign-off holds. */
  needs: { role: string; lines: number[]; policies: Texts[]; held: boolean }[];
  history: SignOffView[];
  /** Those that the person may answer, in their own name or in the place of somebody. */
  mayAnswer: string[];
}

/** A sign-off that waits for an answer. */
export interface AskedSignOff {
  quoteId: string;
  number: string;
  customer: string;
  title: string;
  by: string;
  at: string;
  reason: string;
  lines: number;
  /** In whose place the person answers; not there where in their own. */
  for?: string;
}
