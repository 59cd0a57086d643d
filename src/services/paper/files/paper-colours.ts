/** Colours on paper. */

/** Of text. */
export const ink = '#23262a';
/** Of what is said beside it. */
export const quiet = '#5a5d60';
/** Of rules. */
export const hairline = '#c9c0ae';
