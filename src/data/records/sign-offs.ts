/** Rows and tables of sign-offs. */
import type { LineFigures, PolicyHit } from '../../core/pricing';
import type { Role } from '../../contract';
import { key, text, jsonb, instant, ref, now, type Define } from './columns';

/** over: another was asked for in its place. */
export type SignOffState = 'asked' | 'yes' | 'no' | 'counter' | 'over';

/** What is offered for a line in the place of what was asked: a discount by hand, or nothing. */
export type Offer = { line: string; rate: string } | { line: string; no: true };

/** A sign-off with the figures that it was asked and given for. */
export interface SignOffRow {
  id: string;
  revisionId: string;
  role: Role;
  reason: string;
  figures: LineFigures[];
  askedBy: string;
  askedAt?: Date;
  state: SignOffState;
  answeredBy: string | null;
  /** In whose place; null where in their own. */
  answeredFor: string | null;
  answeredAt: Date | null;
  comment: string;
  /**
   * By line, the discount by hand that would be signed, or that it is not signed; of lines that are not
   * named, as asked.
   */
  counter: Offer[];
  /** The figures that it was asked for. */
  asked: LineFigures[];
  /** What was asked for, or signed, beside the figures. */
  policies: PolicyHit[];
}

/** Its tables. */
export const signOffsRecords = (table: Define) => ({
  signOffs: table<SignOffRow>('sign_offs', {
    id: key(ref),
    revisionId: ref,
    role: text,
    reason: text,
    figures: jsonb,
    askedBy: ref,
    askedAt: now(),
    state: text,
    answeredBy: ref,
    answeredFor: ref,
    answeredAt: instant,
    comment: text,
    counter: jsonb,
    asked: jsonb,
    policies: { type: jsonb, defaultValue: [] },
  }),
});
