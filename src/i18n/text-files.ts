/** Texts of each language in files by what they are about: a page fetches those that its room says it needs. */
import type { SameTexts } from './same-texts';

const en = {
  shell: async () => (await import('./shell.en')).shellEn,
  access: async () => (await import('./access.en')).accessEn,
  begin: async () => (await import('./begin.en')).beginEn,
  desk: async () => (await import('./desk.en')).deskEn,
  catalogue: async () => (await import('./catalogue.en')).catalogueEn,
  customers: async () => (await import('./customers.en')).customersEn,
  quotes: async () => (await import('./quotes.en')).quotesEn,
  signOff: async () => (await import('./sign-off.en')).signOffEn,
  ledger: async () => (await import('./ledger.en')).ledgerEn,
  prices: async () => (await import('./prices.en')).pricesEn,
  bench: async () => (await import('./bench.en')).benchEn,
  panels: async () => (await import('./panels.en')).panelsEn,
  orders: async () => (await import('./orders.en')).ordersEn,
  audit: async () => (await import('./audit.en')).auditEn,
  jobs: async () => (await import('./jobs.en')).jobsEn,
  files: async () => (await import('./files.en')).filesEn,
  grid: async () => (await import('./grid.en')).gridEn,
  house: async () => (await import('./house.en')).houseEn,
  paper: async () => (await import('./paper.en')).paperEn,
  programs: async () => (await import('./programs.en')).programsEn,
  workshop: async () => (await import('./workshop.en')).workshopEn,
};
type English = typeof en;

/** Texts about one thing, in a file of their own for each language. */
export type TextFile = keyof English;

type TextsOf<F extends TextFile> = Awaited<ReturnType<English[F]>>;
type All<U> = (U extends unknown ? (each: U) => void : never) extends (all: infer I) => void ? I : never;
/** All texts. */
export type Texts = All<{ [F in TextFile]: TextsOf<F> }[TextFile]>;

const de: { [F in TextFile]: () => Promise<SameTexts<TextsOf<F>>> } = {
  shell: async () => (await import('./shell.de')).shellDe,
  access: async () => (await import('./access.de')).accessDe,
  begin: async () => (await import('./begin.de')).beginDe,
  desk: async () => (await import('./desk.de')).deskDe,
  catalogue: async () => (await import('./catalogue.de')).catalogueDe,
  customers: async () => (await import('./customers.de')).customersDe,
  quotes: async () => (await import('./quotes.de')).quotesDe,
  signOff: async () => (await import('./sign-off.de')).signOffDe,
  ledger: async () => (await import('./ledger.de')).ledgerDe,
  prices: async () => (await import('./prices.de')).pricesDe,
  bench: async () => (await import('./bench.de')).benchDe,
  panels: async () => (await import('./panels.de')).panelsDe,
  orders: async () => (await import('./orders.de')).ordersDe,
  audit: async () => (await import('./audit.de')).auditDe,
  jobs: async () => (await import('./jobs.de')).jobsDe,
  files: async () => (await import('./files.de')).filesDe,
  grid: async () => (await import('./grid.de')).gridDe,
  house: async () => (await import('./house.de')).houseDe,
  paper: async () => (await import('./paper.de')).paperDe,
  programs: async () => (await import('./programs.de')).programsDe,
  workshop: async () => (await import('./workshop.de')).workshopDe,
};

/** A language that the application speaks. */
export type Language = 'en' | 'de';
const files = { en, de };

/** The names of all files. */
export const textFiles = Object.keys(en) as TextFile[];

/** Texts of some files in a language, as one tree. */
export async function textsOf(language: Language, wanted: readonly TextFile[]): Promise<object> {
  const read = await Promise.all(wanted.map((file) => files[language][file]()));
  return Object.assign({}, ...read) as object;
}
