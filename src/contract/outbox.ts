/** Mails to customers: composed, seen before they go, sent, kept as they went; and the mail server that ships with us. */
import { array, object, string } from 'yup';
import type { MailState, Mailbox, Recipient, Returned } from '../core/sending';
import type { Texts } from '../core/model';
import { mailStates } from '../core/sending';
import { paperFormats, type PaperFormat } from './paper';
import { endpoint, file, json } from './endpoint';
import {
  day,
  emailText,
  exactly,
  find,
  flag,
  id,
  oneOf,
  page,
  said,
  version,
  type Page,
  type Sent,
} from './schema';

/** Recipients and documents of one mail at most. */
export const mostRecipients = 30;
/** See `mostRecipients`. */
export const mostDocuments = 30;

/** No head of a mail has a second line. */
const oneLine = (most: number, code: string) =>
  said(most, code).matches(/^[^\r\n\u0000-\u001f\u007f]*$/, 'mail.oneLine');

const recipient = exactly({
  as: oneOf(['to', 'cc'], 'input.badKind').required('input.required'),
  name: string()
    .strict()
    .trim()
    .max(120, 'input.tooLong')
    .matches(/^[^\r\n\u0000-\u001f\u007f<>"]*$/, 'mail.oneLine')
    .defined('input.required'),
  address: emailText
    .matches(/^[^\s\u0000-\u001f\u007f<>"(),;:\\]+$/, 'input.badEmail')
    .required('mail.noAddress'),
});

const wanted = object({
  is: oneOf(['quotation', 'specification', 'drawings', 'file'], 'input.badKind').required('input.required'),
  format: oneOf(paperFormats, 'file.format'),
  build: string().strict().uuid('input.badId'),
  file: string().strict().uuid('input.badId'),
})
  .exact('input.unknownField')
  .test('one', 'mail.badDocument', ({ is, format, build, file: from }) =>
    is === 'quotation' ? format !== undefined : is === 'file' ? from !== undefined : build !== undefined,
  );

const mail = {
  recipients: array()
    .strict()
    .of(recipient)
    .min(1, 'mail.noRecipient')
    .max(mostRecipients, 'input.tooMany')
    .required('mail.noRecipient')
    .test('to', 'mail.noRecipient', (all) => all.some((each) => each.as === 'to'))
    .test(
      'once',
      'mail.twice',
      (all) => new Set(all.map(({ address }) => address.toLowerCase())).size === all.length,
    ),
  subject: oneLine(200, 'mail.noSubject'),
  words: string().strict().trim().max(20_000, 'input.tooLong').required('mail.noWords'),
  documents: array().strict().of(wanted).max(mostDocuments, 'input.tooMany').required('input.required'),
  /** With a link by which they see and answer, until a day; null without. */
  share: exactly({ until: day }).nullable().default(null),
};

/** A mail about a quote, against the version that its sender saw: a draft is sent by it. */
export const quoteMailInput = exactly({
  version,
  ...mail,
});
/** What passes `quoteMailInput`. */
export type QuoteMailInput = Sent<typeof quoteMailInput>;
/** A mail about a build. */
export const buildMailInput = exactly(mail);
/** What passes `buildMailInput`. */
export type BuildMailInput = Sent<typeof buildMailInput>;

/** Which mails are asked for. */
export const mailListInput = object({
  find,
  page,
  state: string().oneOf(mailStates, 'input.invalid'),
  mine: flag.optional(),
});
/** What passes `mailListInput`. */
export type MailListQuery = Sent<typeof mailListInput>;

/** The simulated server, up or down. */
export const mailServerInput = exactly({ down: flag.required('input.required') });
/** A mail that the simulated server sends back from one of its addresses. */
export const returnInput = exactly({ mail: id, address: emailText.required('mail.noAddress') });

/** A document that went with a mail, or lies on the shelf. */
export interface DocumentView {
  id: string;
  name: string;
  type: string;
  /** In bytes. */
  size: number;
  /** SHA-256, in hexadecimal digits. */
  hash: string;
}

/** What a mail is about. */
export interface MailAbout {
  quote?: { id: string; number: string; title: string; revision: number };
  build?: { id: string; partNumber: string };
  customer: string;
}

/** A mail as a list shows it. */
export interface MailRowView extends MailAbout {
  id: string;
  recipients: Recipient[];
  subject: string;
  state: MailState;
  /** Came back, or was not taken, from some addresses. */
  returned: boolean;
  documents: number;
  madeBy: string;
  madeAt: string;
  sentAt: string | null;
}
/** A page of mails, the newest first. */
export type MailPage = Page<MailRowView>;

/** A mail, all of it. */
export interface MailView extends Omit<MailRowView, 'documents' | 'returned'> {
  sender: Mailbox;
  words: string;
  /** It has a link in it. */
  link: boolean;
  documents: DocumentView[];
  /** Of what is still to be made: how many. */
  wanted: number;
  /** SHA-256 of the message. */
  hash: string | null;
  /** Which server took it. */
  server: string | null;
  /** Addresses that were not taken, and those from which it came back. */
  refused: Returned[];
  returned: Returned[];
  /** What is in its way. */
  problem: { code: string; params?: Record<string, string | number> } | null;
  tries: number;
  /** When it is tried next, where it waits. */
  next: string | null;
  may: { again: boolean; arrived: boolean; giveBack: boolean };
}

/** A mail as whoever gets it sees it, read from the message itself. */
export interface SeenMail {
  from: string;
  to: string[];
  cc: string[];
  subject: string;
  at: string;
  text: string;
  html: string;
  attachments: { name: string; type: string; size: number; hash: string }[];
}

/** A document that can go along. */
export interface OfferedDocument {
  wanted:
    | { is: 'quotation'; format: PaperFormat }
    | { is: 'specification' | 'drawings'; build: string }
    | { is: 'file'; file: string };
  name: Texts | string;
  /** Position of the line that it belongs to. */
  line?: number;
  usual: boolean;
  /** What somebody attached to the quote. */
  attached?: boolean;
}

/** What a mail begins with. */
export interface SendView {
  quote?: { id: string; number: string; title: string; revision: number; version: number; draft: boolean };
  build?: { id: string; partNumber: string; quoteId: string | null };
  customer: string;
  language: string;
  sender: Mailbox;
  /** Who is known at the customer; the first of them is the usual one. */
  contacts: (Mailbox & { task: string })[];
  /** Texts of the house to begin with, filled for this quote. */
  texts: { code: string; name: Texts; subject: string; words: string }[];
  documents: OfferedDocument[];
  /** What stands on the link, in the customer's language. */
  press: string;
  /** Until when a link opens, unless said otherwise. */
  until: string;
  /** What keeps the quote from being sent. */
  obstacles: { code: string; params?: Record<string, string | number> }[];
  /** Mails about it that went before. */
  before: number;
}

/** The mail server: ours, which can be shown and stopped, or a real one. */
export interface MailServerView {
  ours: boolean;
  /** The address of a real one, without its password. */
  at: string;
  down: boolean;
}

/** Endpoints of mails. */
export const outbox = {
  'GET /quotes/{id}/sending': endpoint({
    says: 'What a mail about a quote begins with: contacts, texts, documents.',
    who: 'quotes',
    answers: json<SendView>('SendView'),
  }),
  'POST /quotes/{id}/mails': endpoint({
    says: 'Sends a quote by mail; a draft is sent by it, and never changes from then on.',
    who: 'quotes',
    input: quoteMailInput,
    answers: json<MailView>('MailView'),
  }),
  'GET /builds/{id}/sending': endpoint({
    says: 'What a mail about a build begins with.',
    who: 'quotes',
    answers: json<SendView>('SendView'),
  }),
  'POST /builds/{id}/mails': endpoint({
    says: 'Sends a mail about a build.',
    who: 'quotes',
    input: buildMailInput,
    answers: json<MailView>('MailView'),
  }),
  'GET /mails': endpoint({
    says: 'A page of the mails that the person may see, the newest first.',
    who: 'person',
    query: mailListInput,
    answers: json<MailPage>('MailPage'),
  }),
  'GET /mails/{id}': endpoint({
    says: 'A mail: where it is on its way, and what went with it.',
    who: 'person',
    answers: json<MailView>('MailView'),
  }),
  'GET /mails/{id}/seen': endpoint({
    says: 'A mail as whoever gets it sees it, read from the message as it went.',
    who: 'person',
    answers: json<SeenMail>('SeenMail'),
  }),
  'GET /mails/{id}/message.eml': endpoint({
    says: 'The message (RFC 5322) as it went, byte for byte.',
    who: 'person',
    answers: file,
  }),
  'POST /mails/{id}/again': endpoint({
    says: 'Sends a mail again that was refused, or of which nobody knows whether it went.',
    who: 'quotes',
    answers: json<MailView>('MailView'),
  }),
  'POST /mails/{id}/arrived': endpoint({
    says: 'Says of a mail of which nobody knew that it arrived.',
    who: 'quotes',
    answers: json<MailView>('MailView'),
  }),
  'GET /mail-server': endpoint({
    says: 'Which mail server takes our mails, and whether it is up.',
    who: 'person',
    answers: json<MailServerView>('MailServerView'),
  }),
  'PUT /mail-server': endpoint({
    says: 'Takes the simulated mail server down, or brings it up.',
    who: 'administer',
    input: mailServerInput,
    answers: json<MailServerView>('MailServerView'),
  }),
  'POST /mail-server/returns': endpoint({
    says: 'Has the simulated mail server send a mail back from an address.',
    who: 'quotes',
    input: returnInput,
    answers: json<MailView>('MailView'),
  }),
};
