/**
 * Finding by typed words in the page: parts of words first, and where nothing has them, what was probably
 * meant.
 */

export { foundBy, similarity, wordsOf } from './words';
