/** What a page and its worker say to each other about a build. */
import type { Cause, Decision, Difference, WayOut } from '../../core/engine';
import type { BuildContent, Effect } from '../../core/builds';
import type { BenchView } from '../../contract';

/** What a picture is made of. */
export type Made = Pick<BuildContent, 'decisions' | 'special'>;

/** A way to make a wish possible, with what it costs. */
export interface Way {
  changes: WayOut['changes'];
  /** Rows that change though the site or the customer gives them. */
  given?: string[];
  decisions: Decision[];
  /** Rows that move besides the ones decided on. */
  moved: Difference[];
  effect: Effect;
}

/**
 * What a build is opened with: the model and all that its figures follow from, and what the page shows of it.
 */
export type Opening = Pick<
  BenchView,
  | 'document'
  | 'context'
  | 'asked'
  | 'tariff'
  | 'terms'
  | 'facts'
  | 'registered'
  | 'specialNumber'
  | 'picture'
  | 'may'
>;

/** Why something is not free, and the ways out. */
export interface Why {
  causes: Cause[];
  ways: Way[];
}

/** What stands on an option that is not free. */
export type Remark = { kind: 'swap'; changes: number | null } | { kind: 'barred'; causes: Cause[] };
