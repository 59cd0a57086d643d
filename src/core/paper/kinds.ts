/** Words that several parts of paper share. */

/** Kinds of what a build is made of, as paper tells them apart. */
export const partKinds = ['machine', 'accessory', 'service', 'inner', 'unpriced'] as const;
/** A kind of part. */
export type PartKind = (typeof partKinds)[number];

/** Where a text with placeholders stands: in a document, under each of its lines, or in a mail. */
export type PlaceOfText = 'document' | 'line' | 'mail';
