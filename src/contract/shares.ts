/** Shares: links by which a customer sees a quote or a build and answers; what the house sees of them, and what they show. */
import { boolean, string } from 'yup';
import type { AnswerKind, DeclineReason, PageDocument, ShareState } from '../core/sending';
import { answerKinds, declineReasons } from '../core/sending';
import type { Texts } from '../core/model';
import type { Scene } from '../core/drawing';
import { endpoint, file, json } from './endpoint';
import type { DocumentView, MailRowView } from './outbox';
import type { ShelvedView } from './shelf';
import { day, exactly, oneOf, said, type Sent } from './schema';

// What has a default is not strict, as nothing that is strict has its default put in.

/** A link for somebody, until a day. */
export const shareInput = exactly({
  name: string().trim().max(120, 'input.tooLong').default(''),
  address: string().trim().max(200, 'input.tooLong').email('input.badEmail').default(''),
  until: day,
});
/** What passes `shareInput`. */
export type ShareInput = Sent<typeof shareInput>;
/** Another last day. */
export const shareUntilInput = exactly({ until: day });

/** What the house says to an answer; without words it is only put aside as done. */
export const replyInput = exactly({
  words: string().trim().max(4_000, 'input.tooLong').default(''),
});
/** What passes `replyInput`. */
export type ReplyInput = Sent<typeof replyInput>;

/** What a customer answers. */
export const answerInput = exactly({
  answer: oneOf(answerKinds, 'input.badKind').required('input.required'),
  /** Who answers, typed by them. */
  name: said(120, 'shared.noName').matches(/^[^\r\n\u0000-\u001f\u007f]*$/, 'mail.oneLine'),
  words: string().trim().max(4_000, 'input.tooLong').default(''),
  line: string().uuid('input.badId').nullable().default(null),
  reason: string().oneOf(declineReasons, 'input.badKind').nullable().default(null),
  /** Of a yes: the document that it is to, as it was shown. */
  document: string()
    .matches(/^[0-9a-f]{64}$/, { message: 'shared.badDocument', excludeEmptyString: true })
    .default(''),
  agreed: boolean().typeError('shared.notAgreed').default(false),
})
  .test('agreed', 'shared.notAgreed', ({ answer, agreed }) => answer !== 'accepted' || agreed)
  .test('document', 'shared.badDocument', ({ answer, document }) => answer !== 'accepted' || document !== '')
  .test(
    'words',
    'shared.noWords',
    ({ answer, words }) => (answer !== 'question' && answer !== 'change') || words !== '',
  )
  .test('reason', 'shared.noReason', ({ answer, reason }) => answer !== 'declined' || reason !== null);
/** What passes `answerInput`. */
export type AnswerInput = Sent<typeof answerInput>;

/** A share as the house sees it. */
export interface ShareView {
  id: string;
  revision: number | null;
  name: string;
  address: string;
  language: string;
  until: string;
  state: ShareState;
  madeBy: string;
  madeAt: string;
  /** How often it was opened, when first and last. */
  seen: number;
  firstSeenAt: string | null;
  lastSeenAt: string | null;
}

/** A link, told this once. */
export interface SharedLink {
  link: string;
  share: ShareView;
}

/** What a customer answered, as the house sees it. */
export interface AnswerView {
  id: string;
  answer: AnswerKind;
  revision: number | null;
  /** Of a change: the line. */
  line: { position: number; name: Texts } | null;
  reason: DeclineReason | null;
  words: string;
  name: string;
  /** From which address of the network, and when. */
  from: string;
  at: string;
  document: string | null;
  /** The order that came of a yes, or what it waits for. */
  order: { id: string; number: string } | null;
  waits: { code: string; params?: Record<string, string | number> }[];
  reply: string | null;
  doneAt: string | null;
  doneBy: string | null;
}

/** All that went out of a quote, or of a build, and what came back. */
export interface SentView {
  mails: MailRowView[];
  shares: ShareView[];
  answers: AnswerView[];
  shelf: ShelvedView[];
  may: { share: boolean; mail: boolean };
}

/** An answer as whoever gave it sees it again. */
export interface OwnAnswer {
  answer: AnswerKind;
  line: string;
  words: string;
  name: string;
  at: string;
  reply: string | null;
}

/** What a share shows: nothing that the document which was sent does not say. */
export interface SharedView {
  of: 'quote' | 'build';
  language: string;
  house: { name: string; phone: string; email: string };
  contact: { name: string; email: string };
  /** Number and revision of a quote, part number of a build. */
  reference: string;
  title: string;
  customer: string;
  until: string;
  validUntil: string | null;
  /** The composed document: the quotation, or the specification sheet of a build. */
  document: PageDocument;
  lines: { id: string; position: number; name: string }[];
  /** Builds with a drawing to turn. */
  builds: { id: string; name: string; partNumber: string }[];
  documents: DocumentView[];
  /** Hash of the quotation that a yes is to; null while it is being made. */
  hash: string | null;
  /** A newer revision was begun or sent since. */
  newer: boolean;
  answers: OwnAnswer[];
  mayAnswer: AnswerKind[];
  accepted: { name: string; at: string } | null;
}

/** What came of an answer, as the customer sees it. */
export interface AnsweredView {
  is: 'order' | 'received';
  view: SharedView;
}

/** Tokens are of this form; nothing else is looked for. */
export const tokenPattern = /^[A-Za-z0-9_-]{43}$/;

/** Endpoints of shares. */
export const shares = {
  'GET /quotes/{id}/sent': endpoint({
    says: 'All that went out of a quote: mails, shares, documents, and what the customer answered.',
    who: 'person',
    answers: json<SentView>('SentView'),
  }),
  'GET /builds/{id}/sent': endpoint({
    says: 'All that went out of a build.',
    who: 'person',
    answers: json<SentView>('SentView'),
  }),
  'POST /quotes/{id}/shares': endpoint({
    says: 'A link by which a customer sees the newest revision that was sent, and answers. The link is told this once.',
    who: 'quotes',
    input: shareInput,
    toldOnce: true,
    answers: json<SharedLink>('SharedLink'),
  }),
  'POST /builds/{id}/shares': endpoint({
    says: 'A link by which a customer sees a build, without prices. The link is told this once.',
    who: 'quotes',
    input: shareInput,
    toldOnce: true,
    answers: json<SharedLink>('SharedLink'),
  }),
  'PUT /shares/{id}/until': endpoint({
    says: 'Another last day of a share.',
    who: 'quotes',
    input: shareUntilInput,
    answers: json<ShareView>('ShareView'),
  }),
  'POST /shares/{id}/revoke': endpoint({
    says: 'Ends a share at once.',
    who: 'quotes',
    answers: json<ShareView>('ShareView'),
  }),
  'POST /answers/{id}/reply': endpoint({
    says: 'Answers what a customer asked, behind the same share, or puts it aside as done.',
    who: 'quotes',
    input: replyInput,
    answers: json<AnswerView>('AnswerView'),
  }),
  'POST /answers/{id}/order': endpoint({
    says: 'Makes the order of a yes that had to wait.',
    who: 'accept',
    answers: json<AnswerView>('AnswerView'),
  }),
  'GET /shared/{token}': endpoint({
    says: 'What a share shows.',
    who: 'anyone',
    answers: json<SharedView>('SharedView'),
  }),
  'POST /shared/{token}/answers': endpoint({
    says: 'Accepts, declines, asks, or asks for a change.',
    who: 'anyone',
    input: answerInput,
    answers: json<AnsweredView>('AnsweredView'),
  }),
  'GET /shared/{token}/documents/{id}': endpoint({
    says: 'A document behind a share.',
    who: 'anyone',
    answers: file,
  }),
  'GET /shared/{token}/pictures/{id}': endpoint({
    says: 'A picture in the document behind a share.',
    who: 'anyone',
    answers: file,
  }),
  'GET /shared/{token}/builds/{id}': endpoint({
    says: 'The drawing of a build behind a share, to be turned.',
    who: 'anyone',
    answers: json<Scene>('Scene'),
  }),
};
