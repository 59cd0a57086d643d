/** What goes out to customers and what comes back: mails on their way, shares, answers. */
export {
  handedBy,
  linkMark,
  mailAfter,
  mailEvents,
  mailStates,
  paragraphsOf,
  withLink,
  type Fault,
  type Handed,
  type Mailbox,
  type MailEvent,
  type MailPiece,
  type MailState,
  type Recipient,
  type Returned,
} from './mail';
export {
  answerKinds,
  mayAnswer,
  shareState,
  waitsFor,
  type AnswerKind,
  type ShareState,
  type Standing,
  type Wait,
} from './answers';
export type { PageDocument, PageNode } from './page';
