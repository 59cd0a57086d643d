/**
 * Texts of each language in bundles by what is done with them: a page fetches those that its room says it needs. A
 * bundle is one file over the line, so that the few that a page needs weigh little.
 */
import type { SameTexts } from './same-texts';

const en = {
  everywhere: async () => (await import('./texts-everywhere.en')).texts,
  bench: async () => (await import('./texts-bench.en')).texts,
  selling: async () => (await import('./texts-selling.en')).texts,
  house: async () => (await import('./texts-house.en')).texts,
  workshop: async () => (await import('./texts-workshop.en')).texts,
  paper: async () => (await import('./texts-paper.en')).texts,
  items: async () => (await import('./texts-items.en')).texts,
  prices: async () => (await import('./texts-prices.en')).texts,
  sending: async () => (await import('./texts-sending.en')).texts,
  sheets: async () => (await import('./texts-sheets.en')).texts,
  schedules: async () => (await import('./texts-schedules.en')).texts,
  shared: async () => (await import('./texts-shared.en')).texts,
};
type English = typeof en;

/** Texts that are fetched together. */
export type TextBundle = keyof English;

type TextsOf<B extends TextBundle> = Awaited<ReturnType<English[B]>>;
type All<U> = (U extends unknown ? (each: U) => void : never) extends (all: infer I) => void ? I : never;
/** All texts. */
export type Texts = All<{ [B in TextBundle]: TextsOf<B> }[TextBundle]>;

const de: { [B in TextBundle]: () => Promise<SameTexts<TextsOf<B>>> } = {
  everywhere: async () => (await import('./texts-everywhere.de')).texts,
  bench: async () => (await import('./texts-bench.de')).texts,
  selling: async () => (await import('./texts-selling.de')).texts,
  house: async () => (await import('./texts-house.de')).texts,
  workshop: async () => (await import('./texts-workshop.de')).texts,
  paper: async () => (await import('./texts-paper.de')).texts,
  items: async () => (await import('./texts-items.de')).texts,
  prices: async () => (await import('./texts-prices.de')).texts,
  sending: async () => (await import('./texts-sending.de')).texts,
  sheets: async () => (await import('./texts-sheets.de')).texts,
  schedules: async () => (await import('./texts-schedules.de')).texts,
  shared: async () => (await import('./texts-shared.de')).texts,
};

/** A language that the application speaks. */
export type Language = 'en' | 'de';
const bundles = { en, de };

/** The names of all bundles. */
export const textBundles = Object.keys(en) as TextBundle[];

/** Texts of some bundles in a language, as one tree. */
export async function textsOf(language: Language, wanted: readonly TextBundle[]): Promise<object> {
  const read = await Promise.all(wanted.map((bundle) => bundles[language][bundle]()));
  return Object.assign({}, ...read) as object;
}
