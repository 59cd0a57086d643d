/** What somebody attached to a quote can be: a customer's drawing, a customer's order, anything else. */
export const attachmentKinds = ['drawing', 'order', 'other'] as const;
/** What an attachment is. */
export type AttachmentKind = (typeof attachmentKinds)[number];
