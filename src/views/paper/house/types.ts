import type { PaperHouseView } from '../../../contract';
import type { Answer } from '../../api';
import type { SureOf } from './sure-of';

/** What is open: a text or a template, by its code. */
export interface OpenPaper {
  of: 'texts' | 'templates';
  code: string;
}

/** Keeps what somebody did, and shows what came of it. */
export type KeepPaper = (answer: Promise<Answer<PaperHouseView>>) => Promise<boolean>;

/** What the page is told by whatever is open in it. */
export interface Editing {
  onKeep: KeepPaper;
  /** What it is called where something in it is not in force yet; null where all is. */
  onChanged: (name: string | null) => void;
  /** Asks before something is done that cannot be taken back. */
  onSure: (sure: SureOf) => void;
}
