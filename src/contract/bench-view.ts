/** Builds as they travel from the server to the page. */
import type { Scene } from '../core/drawing';
import type { Context, Decision } from '../core/engine';
import type { ExactText } from '../core/exact';
import type { ModelDocument, Outline, PlainValue, Texts } from '../core/model';
import type { Registered } from '../core/numbering';
import type { WorkingCalendar } from '../core/production';
import type { LineTerms, Tariff } from '../core/pricing';
import type { BenchPicture, BuildContent, SpecialPart } from '../core/builds';

/** What a part number stands for on the Bench that it was pasted on. */
export interface NumberOnBench {
  decisions: Decision[];
  special: SpecialPart[];
  /** Texts that the number says are there; their words are to be typed. */
  typed: string[];
  /** The earlier version of the model by whose scheme it was printed. */
  scheme?: number;
}

/** Everything the Bench needs to compute in the page; the server computes it again. */
export interface BenchView {
  build: { id: string; version: number; letter: string };
  content: BuildContent;
  /** From the needs answered; a decision on the same thing wins. */
  asked: Decision[];
  /** All variants of its group, this one among them. */
  variants: { id: string; letter: string }[];
  modelVersion: { number: number; newest: number };
  document: ModelDocument;
  /** Its rows in words, those of the builds inside among them. */
  outline: Outline;
  context: Context;
  tariff: Tariff;
  terms: LineTerms;
  /** Of items; of one that may not be sold here the sentence that says why, of one with a picture its file. */
  facts: Record<string, { leadDays: number; mass?: string; unsold?: string; picture?: string }>;
  itemNames: Record<string, Texts>;
  /** Whom it is for; null while it is for nobody yet. */
  customer: string | null;
  /** What is settled is only looked at. */
  mayChange: boolean;
  /** The quote it belongs to; absent where it is its owner's alone. */
  quote?: { id: string; number: string };
  line?: { id: string; position: number };
  registered?: Registered;
  specialNumber?: number;
  /** Working days from which a promised date is counted. */
  today: string;
  /** By which working days the day is told that can be promised, and in which countries it is made and goes to. */
  delivery: { calendar: WorkingCalendar; made: string; goes: string };
  /** Who is at the Bench. */
  person: string;
  may: {
    special: boolean;
    /** Is told how it is made; else the document, the picture and the facts say nothing of that. */
    making: boolean;
  };
  preferences: BenchPreferences;
  /** As the server computed it, so that the page shows it at once. */
  picture: BenchPicture;
  /** What each option would do to the list price. */
  differences: Record<string, string>;
  /** What is drawn; null where the model draws nothing. */
  scene: Scene | null;
  /**
   * Working days until it is ready, as the server knows them; the page can work them out only where it is
   * told how it is made.
   */
  leadDays: number | null;
}

/** How a person likes the Bench. */
export interface BenchPreferences {
  /** Barred options are folded away. */
  foldBarred: boolean;
  /** Units in which lengths and masses are shown and understood. */
  units: 'metric' | 'imperial';
}

/** A variant as the table of differences shows it. */
export interface VariantView {
  id: string;
  letter: string;
  partNumber: string;
  complete: boolean;
  values: Readonly<Record<string, PlainValue>>;
  /** Rows that are there in it. */
  shown: string[];
  unitNet: ExactText;
  leadDays: number | null;
  figures: BenchPicture['figures'];
  line?: number;
}

/** What would change if a build moved to the newest version of its model. */
export interface MoveView {
  from: number;
  to: number;
  /** Rows whose value would be another. */
  changes: { row: string; before: PlainValue | null; after: PlainValue | null }[];
  /** Decisions that the newer version has no place for. */
  dropped: string[];
  clashes: number;
  list: { before: ExactText; after: ExactText };
}
