/** Colours on paper. */

export const ink = '#23262a';
export const quiet = '#5a5d60';
export const hairline = '#c9c0ae';
export const accent = '#1f5246';
