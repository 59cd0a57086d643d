/** What colleagues tell and ask one another about a quote. */
import { string } from 'yup';
import {
  attachmentKinds,
  requestKinds,
  type AttachmentKind,
  type Due,
  type RequestKind,
  type RequestState,
} from '../core/colleagues';
import type { SpecialPart } from '../core/builds';
import type { Texts } from '../core/model';
import { specialFields } from './builds';
import { endpoint, json } from './endpoint';
import type { FileKind } from './files';
import type { Role } from './permissions';
import { day, exactly, flag, id, oneOf, optionalDay, optionalId, said, version, type Sent } from './schema';

const words = string().trim().max(4_000, 'input.tooLong');
/** Roles of which somebody can be asked a technical question, whoever of them comes to it first. */
export const askedRoles = ['modeller', 'manager'] as const;

/** A note for colleagues. */
export const noteInput = exactly({ words: said(4_000, 'colleague.noWords') });
/** What is asked, and of whom: a person, or whoever has a role. */
export const requestInput = exactly({
  kind: oneOf(requestKinds, 'input.badKind').required('input.required'),
  of: optionalId.nullable().optional(),
  role: oneOf(askedRoles, 'input.badKind').nullable().optional(),
  line: optionalId.nullable().optional(),
  item: string().strict().max(40, 'input.tooLong').nullable().optional(),
  words: said(4_000, 'colleague.noWords'),
})
  .test('asked', 'colleague.nobody', ({ of, role }) => ((of ?? null) === null) !== ((role ?? null) === null))
  .test('line', 'colleague.noLine', ({ kind, line, item }) =>
    kind === 'technical' ? (line ?? null) !== null : (line ?? null) === null && (item ?? null) === null,
  );
/** What passes `requestInput`. */
export type RequestInput = Sent<typeof requestInput>;

/** An answer, and the special part that comes of it. */
export const requestAnswerInput = exactly({
  words: said(4_000, 'colleague.noWords'),
  part: exactly(specialFields).nullable().optional().default(undefined),
});
/** What passes `requestAnswerInput`. */
export type RequestAnswerInput = Sent<typeof requestAnswerInput>;

/** A day to come back to a quote on, for oneself or a colleague. */
export const followUpInput = exactly({
  day,
  words: words.default(''),
  for: optionalId.nullable().optional(),
});
/** What passes `followUpInput`. */
export type FollowUpInput = Sent<typeof followUpInput>;
/** Another day, or that it is done. */
export const followUpChangeInput = exactly({ day: optionalDay, done: flag.optional() });
/** What passes `followUpChangeInput`. */
export type FollowUpChange = Sent<typeof followUpChangeInput>;

/** A file that was brought, and what it is. */
export const attachInput = exactly({
  file: id,
  kind: oneOf(attachmentKinds, 'input.badKind').required('input.required'),
  words: string().trim().max(300, 'input.tooLong').default(''),
});
/** What passes `attachInput`. */
export type AttachInput = Sent<typeof attachInput>;

/** To whom a quote is handed over, and what they should know. */
export const handOverInput = exactly({ version, to: id, words: words.default('') });
/** What passes `handOverInput`. */
export type HandOverInput = Sent<typeof handOverInput>;

/** What a colleague was asked, and answered. */
export interface RequestView {
  kind: RequestKind;
  state: RequestState;
  /** The line as it stands in the newest revision, else as it stood. */
  line: { id: string | null; position: number; name: Texts } | null;
  item: { sku: string; name: Texts } | null;
  /** A person's name, or whoever has a role. */
  of: { name: string } | { role: Role };
  answer: string | null;
  /** Its cost is told to who sees costs. */
  part: (Omit<SpecialPart, 'cost'> & { cost?: string }) | null;
  answeredBy: string | null;
  answeredAt: string | null;
  /** In which currency cost and price of a special part are, and what the item usually costs; for who answers. */
  usual: { currency: string; decimals: number; cost?: string; price: string | null } | null;
  mayAnswer: boolean;
  mayTake: boolean;
  mayClose: boolean;
}

/** Something that colleagues said, asked or did. */
export interface ThreadEntry {
  id: string;
  by: string;
  /** A moment in ISO form. */
  at: string;
  words: string;
  handed: { from: string; to: string } | null;
  request: RequestView | null;
  /** The person's own note, which they can take back. */
  mayTakeBack: boolean;
}

/** A day on which somebody wants to come back to the quote. */
export interface FollowUpView {
  id: string;
  day: string;
  due: Due;
  words: string;
  for: string;
  by: string;
  doneAt: string | null;
  doneBy: string | null;
}

/** What was attached to a quote. */
export interface AttachmentView {
  file: string;
  name: string;
  format: FileKind;
  size: number;
  kind: AttachmentKind;
  words: string;
  by: string;
  at: string;
}

/** What colleagues know of a quote beside what it offers. */
export interface ColleaguesView {
  /** The newest first. */
  thread: ThreadEntry[];
  /** Those to come first, by their days. */
  followUps: FollowUpView[];
  files: AttachmentView[];
  /** Who can be asked, and whom it can be handed to. */
  people: { id: string; name: string; role: Role; quotes: boolean }[];
  may: { ask: boolean; handOver: boolean; keep: boolean };
}

/** An item of which a build is made, in whose place a special part can be wanted. */
export interface BuildItem {
  sku: string;
  name: Texts;
}

/** Something asked or answered, as the Desk tells of it. */
export interface DeskRequest {
  id: string;
  quoteId: string;
  number: string;
  title: string;
  customer: string;
  kind: RequestKind;
  state: 'open' | 'answered';
  who: string;
  words: string;
  /** Position of the line; null where it is of none. */
  line: number | null;
  at: string;
}

/** A follow-up, as the Desk tells of it. */
export interface DeskFollowUp {
  id: string;
  quoteId: string;
  number: string;
  title: string;
  customer: string;
  day: string;
  due: Due;
  words: string;
}

const view = json<ColleaguesView>('ColleaguesView');

/** Endpoints of work between colleagues. */
export const colleagues = {
  'GET /quotes/{id}/colleagues': endpoint({
    says: 'Notes, what is asked of colleagues, days to follow up on and attachments of a quote.',
    who: 'person',
    answers: view,
  }),
  'POST /quotes/{id}/notes': endpoint({
    says: 'Writes a note for colleagues.',
    who: 'person',
    input: noteInput,
    answers: view,
  }),
  'DELETE /notes/{id}': endpoint({ says: "Takes back one's own note.", who: 'person', answers: view }),
  'GET /quotes/{id}/lines/{line}/items': endpoint({
    says: 'Of what items the build of a line is made; none where the line is no build.',
    who: 'quotes',
    answers: json<BuildItem[]>('BuildItem[]'),
  }),
  'POST /quotes/{id}/requests': endpoint({
    says: 'Asks a colleague to look, or a technical question at a line, where a special part may be wanted in the place of an item.',
    who: 'quotes',
    input: requestInput,
    answers: view,
  }),
  'POST /requests/{id}/answer': endpoint({
    says: 'Answers what a colleague asked, with a special part where one was asked for.',
    who: 'person',
    input: requestAnswerInput,
    answers: view,
  }),
  'POST /requests/{id}/take': endpoint({
    says: 'Puts the special part of an answer into the build of its line.',
    who: 'special',
    answers: view,
  }),
  'POST /requests/{id}/close': endpoint({
    says: 'Puts an answer aside, or withdraws what is not answered yet.',
    who: 'quotes',
    answers: view,
  }),
  'POST /quotes/{id}/follow-ups': endpoint({
    says: 'A day to come back to a quote on.',
    who: 'person',
    input: followUpInput,
    answers: view,
  }),
  'PUT /follow-ups/{id}': endpoint({
    says: 'Another day of a follow-up, or that it is done or not.',
    who: 'person',
    input: followUpChangeInput,
    answers: view,
  }),
  'POST /quotes/{id}/attachments': endpoint({
    says: 'Attaches a file that was brought: the drawing or the order of a customer.',
    who: 'quotes',
    input: attachInput,
    answers: view,
  }),
  'DELETE /quotes/{id}/attachments/{file}': endpoint({
    says: 'Takes an attachment away.',
    who: 'quotes',
    answers: view,
  }),
  'POST /quotes/{id}/hand-over': endpoint({
    says: 'Hands a quote over to a colleague, whose it is from then on.',
    who: 'quotes',
    input: handOverInput,
    answers: view,
  }),
};
