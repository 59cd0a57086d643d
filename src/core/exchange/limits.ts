/** How much is taken at once. */

/** Bytes of a file at most. */
export const mostFileBytes = 20 * 1024 * 1024;
