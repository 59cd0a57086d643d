/** Rows and tables of what colleagues do about a quote. */
import type { AttachmentKind, RequestKind } from '../../core/colleagues';
import type { SpecialPart } from '../../core/builds';
import type { Texts } from '../../core/model';
import { day, instant, jsonb, key, now, ref, text, type Define } from './columns';

/** A note for colleagues; of a quote that was handed over, from whom to whom. */
export interface QuoteNoteRow {
  id: string;
  number?: string;
  quoteId: string;
  words: string;
  handedFrom: string | null;
  handedTo: string | null;
  madeBy: string;
  madeAt: Date;
}

/** What a colleague is asked: to look, or a technical question at a line. */
export interface QuoteRequestRow {
  id: string;
  number?: string;
  quoteId: string;
  kind: RequestKind;
  /** The line that it is about, the same in all revisions. */
  lineOrigin: string | null;
  /** As it stood when it was asked. */
  lineNamed: { position: number; name: Texts } | null;
  /** The item of its build in whose place a special part is wanted. */
  item: string | null;
  askedOf: string | null;
  role: 'modeller' | 'manager' | null;
  words: string;
  madeBy: string;
  madeAt: Date;
  answer: string | null;
  part: SpecialPart | null;
  answeredBy: string | null;
  answeredAt: Date | null;
  takenAt: Date | null;
  closedAt: Date | null;
}

/** A day on which somebody wants to come back to a quote. */
export interface FollowUpRow {
  id: string;
  quoteId: string;
  day: string;
  words: string;
  forUser: string;
  madeBy: string;
  madeAt: Date;
  doneAt: Date | null;
  doneBy: string | null;
}

/** What was attached to a quote. */
export interface QuoteFileRow {
  quoteId: string;
  fileId: string;
  kind: AttachmentKind;
  words: string;
  madeBy: string;
  madeAt: Date;
}

/** Its tables. */
export const colleaguesRecords = (table: Define) => ({
  quoteNotes: table<QuoteNoteRow>('quote_notes', {
    id: key(ref),
    quoteId: ref,
    words: text,
    handedFrom: ref,
    handedTo: ref,
    madeBy: ref,
    madeAt: now(),
  }),
  quoteRequests: table<QuoteRequestRow>('quote_requests', {
    id: key(ref),
    quoteId: ref,
    kind: text,
    lineOrigin: ref,
    lineNamed: jsonb,
    item: text,
    askedOf: ref,
    role: text,
    words: text,
    madeBy: ref,
    madeAt: now(),
    answer: text,
    part: jsonb,
    answeredBy: ref,
    answeredAt: instant,
    takenAt: instant,
    closedAt: instant,
  }),
  followUps: table<FollowUpRow>('follow_ups', {
    id: key(ref),
    quoteId: ref,
    day,
    words: text,
    forUser: ref,
    madeBy: ref,
    madeAt: now(),
    doneAt: instant,
    doneBy: ref,
  }),
  quoteFiles: table<QuoteFileRow>('quote_files', {
    quoteId: key(ref),
    fileId: key(ref),
    kind: text,
    words: text,
    madeBy: ref,
    madeAt: now(),
  }),
});
