/**
 * What a document is made of. Only what a customer may see is in here: whoever gathers it leaves out costs, margins,
 * limits and warnings passed, so that no writer could show them.
 */
import type { ExactText } from '../exact';
import type { View } from '../drawing';
import type { Texts } from '../model';
import type { LinePrice, PricedPart, Taxed, Totals } from '../pricing';
import type { QuoteLease } from '../quotes';
import type { PartKind } from './kinds';
import type { LetterHead } from './types';

/** A row of a build in words. */
export interface ChosenRow {
  row: string;
  section: string;
  name: Texts;
  value: Texts;
  /** Somebody decided it for this build. */
  decided: boolean;
}

/** A build as it stands on paper. */
export interface PaperBuild {
  rows: readonly ChosenRow[];
  /** Names of the sections that rows are in. */
  sections: Readonly<Record<string, Texts>>;
  /** Figures worked out of it, such as its mass. */
  figures: readonly { name: Texts; value: Texts }[];
  /** Builds inside, with their part numbers. */
  inside: readonly { place: string; name: Texts; number: string }[];
  views: readonly DrawnView[];
}

/** A view of a build's drawing. */
export interface DrawnView {
  id: string;
  name: Texts;
  view: View;
  /** Seen in space, without dimensions. */
  space: boolean;
}

/** What a part of a bundle or build adds to the price of one. */
export type PaperPart = Pick<PricedPart, 'name' | 'quantity' | 'amount'> & { kind: PartKind };

/** A line as its customer may see it. */
export interface PaperLine {
  id: string;
  position: number;
  name: Texts;
  sku: string;
  family: string;
  /** Of its item: model, part, software, service. */
  kind: string;
  partNumber: string;
  quantity: number;
  unit: string;
  optional: boolean;
  alternative: boolean;
  /** The same for lines that are alternatives of one another. */
  alternativeSet: string | null;
  /** Position of the line that counts instead. */
  insteadOf: number | null;
  group: string | null;
  /** Without costs and without the steps that led to it. */
  price: LinePrice;
  /** How the price of an item for all pieces comes about, in words; empty where it is by the piece. */
  how: string;
  taxRate: ExactText | null;
  covers: readonly { name: Texts; from: string; to: string }[];
  /** Special parts in it, each with what takes an item's place. */
  special: readonly string[];
  /** Parts of its build; they make its list price, unless `partsApart`. */
  parts: readonly PaperPart[];
  /** The parts do not make the price of the line, so that theirs are not told. */
  partsApart: boolean;
  /** What of its build recurs: for how many months its price is, and from when, where the model says it. */
  recurs: readonly { name: Texts; baseMonths: number; start: string | null }[];
  /** What is sold with it: itself, and the items of its build. */
  sold: readonly { sku: string; family: string; kind: string }[];
  /** Working days, where it is known. */
  leadDays: number | null;
  /** In kg. */
  mass: ExactText | null;
  build: PaperBuild | null;
}

/** An address on a document. */
export interface PaperAddress {
  kind: string;
  street: string;
  postcode: string;
  town: string;
  country: string;
}

/** Who offers it. */
export interface PaperHouse extends LetterHead {
  street: string;
  postcode: string;
  town: string;
  country: string;
  phone: string;
  email: string;
  web: string;
  taxNumber: string;
  registered: string;
  bank: string;
  iban: string;
  bic: string;
}

/** All that a quotation is made of. */
export interface PaperGiven {
  number: string;
  revision: number;
  title: string;
  /** On its head: the day it was sent, else today. */
  day: string;
  validUntil: string;
  delivered: string;
  owner: { name: string; email: string };
  customer: {
    number: string;
    name: string;
    class: string;
    contact: string;
    contactEmail: string;
    paymentDays: number;
    addresses: readonly PaperAddress[];
  };
  house: PaperHouse;
  currency: string;
  decimals: number;
  lines: readonly PaperLine[];
  totals: Totals;
  tax: Taxed | null;
  lease: QuoteLease | null;
  /** It cannot be sold as it stands, or nobody has signed it yet. */
  draft: boolean;
}
