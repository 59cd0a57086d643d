/** What a customer answers behind a share, and what stands between a yes and an order. */
import type { RevisionState } from '../quotes';

/** What a customer can answer. */
export const answerKinds = ['accepted', 'declined', 'question', 'change'] as const;
/** What a customer answered. */
export type AnswerKind = (typeof answerKinds)[number];

/** Why somebody says no: as a quote is lost, but for silence. */
export const declineReasons = ['price', 'time', 'fit', 'need', 'other'] as const;
/** Why somebody says no. */
export type DeclineReason = (typeof declineReasons)[number];

/** How a quote stands at the moment of a yes. */
export interface Standing {
  /** Of the revision that was shared. */
  state: RevisionState;
  newest: boolean;
  /** Its validity is over. */
  expired: boolean;
  /** Whoever it belongs to may make orders. */
  mayOrder: boolean;
  /** Codes of what keeps it from being sold: what is missing, unsellable or not signed. */
  obstacles: readonly string[];
}

/** Why a yes is no order yet. */
export type Wait =
  { why: 'newer' | 'expired' | 'settled' | 'orderer' } | { why: 'obstacles'; codes: readonly string[] };

/**
 * What a yes waits for, by the rules that hold for the engineer; nothing where it becomes an order at once. What was
 * sent can have become unsellable in between, and a person decides then.
 */
export function waitsFor({ state, newest, expired, mayOrder, obstacles }: Standing): Wait[] {
  if (!newest) return [{ why: 'newer' }];
  if (state !== 'sent') return [{ why: 'settled' }];
  return [
    ...(expired ? [{ why: 'expired' } as const] : []),
    ...(obstacles.length > 0 ? [{ why: 'obstacles', codes: obstacles } as const] : []),
    ...(mayOrder ? [] : [{ why: 'orderer' } as const]),
  ];
}

/** How a share stands, for whoever comes by it. */
export type ShareState = 'open' | 'ended' | 'revoked';

/** Whether a share still opens: its last day counts. */
export function shareState(share: { until: string; revoked: boolean }, today: string): ShareState {
  if (share.revoked) return 'revoked';
  return share.until < today ? 'ended' : 'open';
}

/** What may be answered behind a share: only what can still come of it, and a question always. */
export function mayAnswer(of: {
  quote: boolean;
  newest: boolean;
  state: RevisionState;
  expired: boolean;
  /** It was answered with yes already. */
  accepted: boolean;
}): AnswerKind[] {
  if (!of.quote) return ['question'];
  if (of.accepted || of.state === 'accepted') return ['question'];
  if (!of.newest || of.state !== 'sent') return ['question'];
  return of.expired ? ['question', 'change'] : ['accepted', 'declined', 'question', 'change'];
}
