/** What the sheet is given, and what may be asked of it. */
import type { Ref } from 'react';
import type { Decision, Target } from '../../../core/engine';
import type { BenchView } from '../../../contract';
import type { Why } from '../../../workers/bench/types';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';
import type { RowActs } from './row-props';

/** What others may ask of the sheet. */
export interface SheetHandle {
  /** Brings a row into view and to the keyboard, opening the build inside that it is in. */
  go(row: string): void;
  /** The row that has the keyboard. */
  rowInFocus(): string | undefined;
  help(row: string | undefined): void;
  /** Tells why the option in focus is not free. */
  why(row: string | undefined): void;
}

/** The build as the sheet shows it, and what is done there. */
export interface SheetProps {
  ref: Ref<SheetHandle>;
  view: BenchView;
  bench: Bench;
  /** The Bench as rows out of sight may show it: until what changed in sight is painted, as it was. */
  later: Bench;
  words: Words;
  frozen: boolean;
  clash: Why | null;
  asked: { target: Target; why: Why } | null;
  acts: RowActs;
  onPrefer: (change: Partial<BenchView['preferences']>) => void;
  onCloseWhy: () => void;
  onTake: (decisions: readonly Decision[], row?: string) => void;
  onMoved: () => void;
}
