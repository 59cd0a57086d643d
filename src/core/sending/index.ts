/** What goes out to customers and what comes back: mails on their way, shares, answers. */
export {
  handedBy,
  mailAfter,
  mailEvents,
  mailStates,
  paragraphsOf,
  withLink,
  type Handed,
  type Mailbox,
  type MailEvent,
  type MailState,
  type Recipient,
  type Returned,
} from './mail';
export {
  answerKinds,
  declineReasons,
  mayAnswer,
  shareState,
  waitsFor,
  type AnswerKind,
  type DeclineReason,
  type ShareState,
  type Standing,
  type Wait,
} from './answers';
export type { PageCell, PageDocument, PageNode } from './page';
