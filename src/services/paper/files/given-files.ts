/** Files of the store that a document shows or is joined with. */

/** Their bytes by their ids; a picture is PNG, JPEG or SVG. */
export type GivenFiles = Readonly<Record<string, { kind: string; bytes: Uint8Array }>>;
