/**
 * Letters of a text as a person counts them: what is put together of several code points, such as an emoji or
 * a letter with its accent, is one.
 */
const segmenter = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/** How many letters a text has, as people count them. */
export const lettersOf = (text: string): number =>
  /^[ -~]*$/.test(text) ? text.length : [...segmenter.segment(text)].length;
