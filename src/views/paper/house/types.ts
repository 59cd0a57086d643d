import type { PaperHouseView } from '../../../contract';
import type { Answer } from '../../api';

/** What is open: a text or a template, by its code. */
export interface OpenPaper {
  of: 'texts' | 'templates';
  code: string;
}

/** Keeps what somebody did, and shows what came of it. */
export type KeepPaper = (answer: Promise<Answer<PaperHouseView>>) => Promise<boolean>;
