import type { Decision, RowState, Target } from '../../../core/engine';
import type { Texts } from '../../../core/model';
import type { BenchView } from '../../../contract';
import type { Remark } from '../../../workers/bench/types';
import type { Words } from '../words';

/** What can be done at a row. */
export interface RowActs {
  onDecide: (decision: Decision) => void;
  /** The person may be about to decide it. */
  onConsider: (decision: Decision) => void;
  onRelease: (on: string) => void;
  onWhy: (target: Target) => void;
  /** Another question is asked, or answered at the row itself: what is told of the last one goes. */
  onAnew: () => void;
}

/** What the control of a row is given. */
export interface RowProps extends RowActs {
  state: RowState;
  words: Words;
  differences: Readonly<Record<string, string>>;
  remarks: Readonly<Record<string, Remark>>;
  decimals: number;
  frozen: boolean;
  /** Barred options are folded away. */
  folded: boolean;
  facts: BenchView['facts'];
  /** Why its value is advised, where it is. */
  advice: Texts | undefined;
}
