/** Work between colleagues: who answers what is asked, what becomes of an answer, and when something is due. */
export { answers, requestKinds, requestState, type RequestKind, type RequestState } from './requests';
export { dueIn, type Due } from './due';
export { attachmentKinds, type AttachmentKind } from './attachments';
