/** Rows and tables of what goes out: the shelf, mails, shares and what was answered behind them. */
import { DataTypes } from 'sequelize';
import type { AnswerKind, Mailbox, MailState, Recipient, Returned } from '../../core/sending';
import { day, instant, int, jsonb, key, now, ref, text, type Define } from './columns';
import type { JobProblem } from './jobs';

/** A document as it was made, byte for byte. */
export interface ShelfRow {
  id: string;
  kind: ShelfKind;
  name: string;
  /** Media type. */
  type: string;
  hash: string;
  quoteId: string | null;
  revisionId: string | null;
  buildId: string | null;
  customerId: string | null;
  /** The site schedule of a package. */
  scheduleId?: string | null;
  /** Names what it was made of, so that one can tell whether that moved on since. */
  stand: string;
  madeBy: string;
  madeAt: Date;
}

/** What a document on the shelf is. */
export type ShelfKind = 'quotation' | 'specification' | 'drawings' | 'file' | 'package';

/** What is in documents, once however often it was made. */
export interface ShelfContentRow {
  /** SHA-256 of the bytes, in hexadecimal digits. */
  hash: string;
  size: number;
  bytes: Buffer;
  madeAt: Date;
}

/** A document that a mail is to take along, until it is made. */
export type WantedDocument =
  | { is: 'quotation'; format: string }
  | { is: 'specification' | 'drawings'; build: string }
  | { is: 'file'; file: string };

/** A mail, from the moment that it was asked for. */
export interface MailRow {
  id: string;
  number?: string;
  /** As in its head, without the angle brackets. */
  messageId: string;
  quoteId: string | null;
  revisionId: string | null;
  buildId: string | null;
  customerId: string | null;
  shareId: string | null;
  sender: Mailbox;
  recipients: Recipient[];
  subject: string;
  /** As they are read, with the link in them. */
  words: string;
  link: string | null;
  language: string;
  wanted: WantedDocument[];
  state: MailState;
  /** The whole message (RFC 5322), as it goes. */
  raw: Buffer | null;
  hash: string | null;
  /** Which server took it. */
  server: string | null;
  /** Addresses that the server would not take. */
  refused: Returned[];
  /** Addresses from which it came back. */
  returned: Returned[];
  problem: JobProblem | null;
  tries: number;
  handedAt: Date | null;
  sentAt: Date | null;
  madeBy: string;
  madeAt: Date;
}

/** A document that went with a mail. */
export interface MailDocumentRow {
  mailId: string;
  position: number;
  shelfId: string;
}

/** A link by which a customer sees a quote as it was sent, or a build. */
export interface ShareRow {
  id: string;
  tokenHash: string;
  quoteId: string | null;
  revisionId: string | null;
  buildId: string | null;
  forName: string;
  forAddress: string;
  language: string;
  until: string;
  madeBy: string;
  madeAt: Date;
  revokedAt: Date | null;
  revokedBy: string | null;
  firstSeenAt: Date | null;
  lastSeenAt: Date | null;
  seen: number;
}

/** What came of a yes: an order, or what it waits for. */
export type AnswerOutcome = { order: string } | { waits: JobProblem[] };

/** What a customer answered. */
export interface ShareAnswerRow {
  id: string;
  number?: string;
  shareId: string;
  quoteId: string | null;
  revisionId: string | null;
  answer: AnswerKind;
  /** Of a change: the line that it is about. */
  lineId: string | null;
  lineNamed: string;
  /** Of a no: as a quote is lost. */
  reason: string | null;
  words: string;
  /** As the customer typed it. */
  name: string;
  /** From where. */
  address: string;
  agent: string;
  /** Hash of the document that was accepted. */
  document: string | null;
  at: Date;
  outcome: AnswerOutcome | null;
  reply: string | null;
  doneAt: Date | null;
  doneBy: string | null;
}

/** Its tables. */
export const sendingRecords = (table: Define) => ({
  shelf: table<ShelfRow>('shelf', {
    id: key(ref),
    kind: text,
    name: text,
    type: text,
    hash: text,
    quoteId: ref,
    revisionId: ref,
    buildId: ref,
    customerId: ref,
    scheduleId: ref,
    stand: text,
    madeBy: ref,
    madeAt: now(),
  }),
  shelfContents: table<ShelfContentRow>('shelf_contents', {
    hash: key(text),
    size: int,
    bytes: DataTypes.BLOB,
    madeAt: now(),
  }),
  mails: table<MailRow>('mails', {
    id: key(ref),
    messageId: text,
    quoteId: ref,
    revisionId: ref,
    buildId: ref,
    customerId: ref,
    shareId: ref,
    sender: jsonb,
    recipients: jsonb,
    subject: text,
    words: text,
    link: text,
    language: text,
    wanted: jsonb,
    state: text,
    raw: DataTypes.BLOB,
    hash: text,
    server: text,
    refused: { type: jsonb, defaultValue: [] },
    returned: { type: jsonb, defaultValue: [] },
    problem: jsonb,
    tries: { type: int, defaultValue: 0 },
    handedAt: instant,
    sentAt: instant,
    madeBy: ref,
    madeAt: now(),
  }),
  mailDocuments: table<MailDocumentRow>('mail_documents', {
    mailId: key(ref),
    position: { type: int, primaryKey: true },
    shelfId: ref,
  }),
  shares: table<ShareRow>('shares', {
    id: key(ref),
    tokenHash: text,
    quoteId: ref,
    revisionId: ref,
    buildId: ref,
    forName: text,
    forAddress: text,
    language: text,
    until: day,
    madeBy: ref,
    madeAt: now(),
    revokedAt: instant,
    revokedBy: ref,
    firstSeenAt: instant,
    lastSeenAt: instant,
    seen: { type: int, defaultValue: 0 },
  }),
  shareAnswers: table<ShareAnswerRow>('share_answers', {
    id: key(ref),
    shareId: ref,
    quoteId: ref,
    revisionId: ref,
    answer: text,
    lineId: ref,
    lineNamed: text,
    reason: text,
    words: text,
    name: text,
    address: text,
    agent: text,
    document: text,
    at: now(),
    outcome: jsonb,
    reply: text,
    doneAt: instant,
    doneBy: ref,
  }),
});
