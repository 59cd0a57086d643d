/** Texts by language, and the one place where money, numbers, dates and units are written. */
export * from './format';
export { sentence } from './sentence';
export type { TextBundle } from './text-bundles';
export { hasText, keysIn, own, translator, type TextKey, type Translate } from './texts';
