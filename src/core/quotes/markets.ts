/**
 * Markets: sets of countries, each with the price list, language, forms and paper that are usual there. They
 * are what is proposed, and how what is written looks; they price nothing by themselves.
 */
import type { Units } from '../exact';

/** How something is written: a language, with its forms of days and numbers. Plain English is the British. */
export type Writing = 'en' | 'en-US' | 'de';
/** All ways of writing. */
export const writings = ['en', 'en-US', 'de'] as const satisfies readonly Writing[];

/** A set of countries, and what is usual in it. */
export interface Market {
  /** Short, as it may stand in numbers. */
  code: string;
  name: string;
  /** By their two letters (ISO 3166-1); no country is in two markets. */
  countries: readonly string[];
  /** What a new customer buys from; null for whatever is chosen. */
  priceList: string | null;
  /** added: worked out and added below. apart: prices are without it, and it is not spoken of in figures. */
  tax: 'added' | 'apart';
  language: Writing;
  units: Units;
  paper: 'A4' | 'letter';
  /** Where models are used, as their context calls it; empty for whatever is chosen. */
  region: string;
}

/** What is usual where no market has a country. */
export const elsewhere: Market = {
  code: 'XX',
  name: '',
  countries: [],
  priceList: null,
  tax: 'added',
  language: 'en',
  units: 'metric',
  paper: 'A4',
  region: '',
};

/** The market that has a country. */
export const marketOf = (markets: readonly Market[], country: string): Market =>
  markets.find(({ countries }) => countries.includes(country)) ?? elsewhere;

/** How something is written for who speaks a language, in a market: English with the forms that are usual there. */
export const writingIn = (language: string, { language: usual }: Pick<Market, 'language'>): Writing =>
  language === 'de' ? 'de' : usual === 'en-US' ? 'en-US' : 'en';

/** The language of a way of writing. */
export const languageIn = (writing: Writing): 'en' | 'de' => (writing === 'de' ? 'de' : 'en');
