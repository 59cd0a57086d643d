/** What is chosen for one document: which blocks, in which order, and how lines are shown. */
import type { Texts } from '../model';
import type { Writing } from '../quotes';
import type { RichText } from './rich';
import { partKinds, type PartKind, type PlaceOfText } from './kinds';
import type { Annex } from './types';

/** What a block shows. `text` is a text of the house; a document may have several of those. */
export const blockKinds = [
  'letterHead',
  'subject',
  'opening',
  'summary',
  'lines',
  'alternatives',
  'optional',
  'recurring',
  'lease',
  'included',
  'delivery',
  'terms',
  'text',
  'closing',
  'acceptance',
  'specification',
  'drawings',
  'annexes',
] as const;
/** What a block shows. */
export type BlockKind = (typeof blockKinds)[number];

/** Those that are made of a text alone. */
export const textKinds: readonly BlockKind[] = [
  'opening',
  'included',
  'delivery',
  'terms',
  'text',
  'closing',
];

/** A block as it is chosen. */
export interface BlockChoice {
  /** Names it within the composition: its kind, and of texts the text. */
  key: string;
  kind: BlockKind;
  on: boolean;
  /** FEEL over quote, customer, house and lines; stands only where it holds. Empty: always. */
  when: string;
  /** The code of the house's text; empty where the block is made without one. */
  text: string;
  /** Written for this document alone, in the place of the house's text. */
  own: RichText | null;
}

/** How the lines are shown. */
export interface LinesChoice {
  /** each: unit prices and amounts. sums: what all comes to. none: nothing that costs. */
  prices: 'each' | 'sums' | 'none';
  /** line: at each line. sum: all together, beneath. none: only what is left to pay is seen. */
  discounts: 'line' | 'sum' | 'none';
  /** Parts of a build: with their prices, of bundles alone with their prices, by name, or not at all. */
  parts: 'priced' | 'bundles' | 'named' | 'none';
  /** What was chosen: names and values in a table, in one paragraph, only what was decided for this build, or nothing. */
  chosen: 'table' | 'prose' | 'short' | 'none';
  numbers: boolean;
  /** Heads of groups with what their lines come to. */
  groups: boolean;
  /** Kinds of parts that are told of; what others cost is told as one. */
  kinds: readonly PartKind[];
  /** The code of a text that stands under each line; empty for none. */
  under: string;
}

/** Which drawings stand in the document. */
export interface DrawingsChoice {
  /** Views by their ids; empty for all that a model has. */
  views: readonly string[];
  /** With a picture in space. */
  space: boolean;
}

/** All that is chosen for a document. */
export interface Composition {
  /** The code of the template that it began from. */
  template: string;
  language: Writing;
  paper: 'A4' | 'letter';
  /** #rrggbb. */
  colour: string;
  blocks: readonly BlockChoice[];
  lines: LinesChoice;
  drawings: DrawingsChoice;
  annexes: readonly Annex[];
}

/** What is usual where no template says otherwise. */
export const usualLines: LinesChoice = {
  prices: 'each',
  discounts: 'line',
  parts: 'bundles',
  chosen: 'table',
  numbers: true,
  groups: true,
  kinds: [...partKinds],
  under: '',
};

/** The colour of the house where nobody chose one. */
export const usualColour = '#1f5246';

const usuallyOn: readonly BlockKind[] = [
  'letterHead',
  'subject',
  'opening',
  'lines',
  'alternatives',
  'optional',
  'recurring',
  'lease',
  'delivery',
  'terms',
  'closing',
];

/** A block as it is before anybody chooses. */
export const usualBlock = (kind: BlockKind): BlockChoice => ({
  key: kind,
  kind,
  on: usuallyOn.includes(kind),
  when: '',
  text: '',
  own: null,
});

/** The blocks of a document without a template; texts of the house are added by templates. */
export const usualBlocks: readonly BlockChoice[] = blockKinds
  .filter((kind) => kind !== 'text')
  .map(usualBlock);

/** A text of the house: its name for colleagues, where it stands, and its words by language. */
export interface TextContent {
  name: Texts;
  place: PlaceOfText;
  words: Readonly<Record<string, RichText>>;
  /** Of a mail: what stands above it, by language. */
  subject?: Texts | undefined;
}

/** For whom a template is meant, and what it chooses. What is null goes by the market of the customer. */
export interface TemplateContent {
  name: Texts;
  /** Only for customers of a market, or of a class. */
  market: string | null;
  class: string | null;
  /** For quotes of the house (none), of any dealer (any), or of the one with this id. */
  dealers: string;
  language: Writing | null;
  paper: 'A4' | 'letter' | null;
  colour: string;
  /** Picture of the file store in the place of the house's own; null for that. */
  mark: string | null;
  blocks: readonly BlockChoice[];
  lines: LinesChoice;
  drawings: DrawingsChoice;
}

/** Whose quote it is, as templates are chosen by it. */
export interface TemplateFor {
  market: string;
  class: string;
  dealer: string | null;
}

/** How well a template fits; null where it is not meant for it at all. */
export function fitOf(template: TemplateContent, of: TemplateFor): number | null {
  const { market, class: customers, dealers } = template;
  if (of.dealer === null ? dealers !== 'none' : dealers === 'none') return null;
  if (dealers !== 'none' && dealers !== 'any' && dealers !== of.dealer) return null;
  if (market !== null && market !== of.market) return null;
  if (customers !== null && customers !== of.class) return null;
  return (
    (dealers !== 'none' && dealers !== 'any' ? 4 : 0) +
    (customers === null ? 0 : 2) +
    (market === null ? 0 : 1)
  );
}

/** A document as a template chooses it. */
export const composedBy = (
  code: string,
  template: TemplateContent,
  usual: Pick<Composition, 'language' | 'paper'>,
): Composition => ({
  template: code,
  language: template.language ?? usual.language,
  paper: template.paper ?? usual.paper,
  colour: template.colour,
  blocks: template.blocks,
  lines: template.lines,
  drawings: template.drawings,
  annexes: [],
});

/** A document where the house has no template. */
export const plainComposition = (usual: Pick<Composition, 'language' | 'paper'>): Composition => ({
  ...usual,
  template: '',
  colour: usualColour,
  blocks: usualBlocks,
  lines: usualLines,
  drawings: { views: [], space: false },
  annexes: [],
});
