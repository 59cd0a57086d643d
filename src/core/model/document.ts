/**
 * The model document: one JSON value that describes one model completely. It is what is saved, pinned by
 * builds, exported and compared. docs/model.schema.json is its published schema; `schema.ts` guards the door
 * at run time.
 */

import type { Counting } from './counting';
import type { Drawing } from './drawing';
import type { Feel, Texts } from './texts';

export type { Feel, Texts } from './texts';

/** A value, or a formula that gives it. */
export type Proposed = DecisionValue | { formula: Feel };

/** A model as it is written and published. */
export interface ModelDocument {
  /** Version of this format; always the first field. */
  format: 2;
  id: string;
  name: Texts;
  /** Languages that every text has. */
  languages: string[];
  /** Choices fixed from outside the build, such as the region of use. */
  context: ContextInput[];
  sections: Section[];
  features: Feature[];
  parameters: Parameter[];
  calculations: Calculation[];
  rules: Rule[];
  numbering: Segment[];
  /**
   * Items that are no goods, such as visits and licences: what differs in these alone may have one part
   * number.
   */
  services?: string[];
  prices: PricePart[];
  surcharges: Surcharge[];
  insidePrices?: InsidePrice[];
  materials: MaterialRow[];
  operations: OperationRow[];
  /** Working days added to the longest lead time of the materials. */
  extraDays?: Feel;
  /**
   * From when (a day) and for how many months what recurs in the build runs; without it, as its quote says.
   */
  term?: { start?: Feel; months: Feel };
  /** What the build looks like. */
  drawing?: Drawing;
  /** Calculations shown beside the build while it is made. */
  figures: Figures;
  /** What must come out of given decisions; run by the check-up. */
  tests?: ModelTest[];
  /** Classes whose parameters, features, calculations and rules are part of this model, by id. */
  classes?: string[];
  /** What formulas may read of items, such as mass or rating. */
  properties?: Property[];
  /**
   * What is told of items, by item and property. It travels with the document, so that an old build stays what it
   * was.
   */
  items?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** Every model and class that this one, or one of these, names. */
  library?: Library;
}

/**
 * A fact of an item, such as its capacity, that formulas read: a number in its unit where nothing else is said; a text,
 * which may be the id of one of a few; or yes or no, told as true or false.
 */
export interface Property {
  id: string;
  name: Texts;
  unit: string;
  type?: 'number' | 'text' | 'yesno';
}

/** What several models share. */
export interface Library {
  models?: ModelDocument[];
  classes?: ModelClass[];
}

/** What several models of a family have in common, written once. */
export interface ModelClass {
  id: string;
  name: Texts;
  /** Rows of a section that the model has too stand behind the model's own. */
  sections?: Section[];
  features?: Feature[];
  parameters?: Parameter[];
  calculations?: Calculation[];
  rules?: Rule[];
}

/** Decisions, and what the state must then be. */
export interface ModelTest {
  id: string;
  /** The day it is run as on; what depends on the day needs it to come out the same always. */
  date?: string;
  context?: Readonly<Record<string, string>>;
  /** By "feature", "feature.option" or "parameter". */
  decisions: Readonly<Record<string, DecisionValue>>;
  expect: {
    complete?: boolean;
    /** Values of rows and calculations, as they travel; of a multiple choice the ids taken. */
    values?: Readonly<Record<string, string | boolean | null | readonly string[]>>;
    /** Standings by "feature.option". */
    standings?: Readonly<Record<string, 'free' | 'swap' | 'barred'>>;
    /** Rules that are the reason why "feature.option" (or "parameter = value") cannot be had. */
    reasons?: Readonly<Record<string, readonly string[]>>;
    /** Rules that warn or note. */
    messages?: readonly string[];
    partNumber?: string;
  };
}

/** Something that the site or the customer gives, such as a region. */
export interface ContextInput {
  id: string;
  name: Texts;
  values: { id: string; name: Texts }[];
}

/** A part of the sheet with its rows. */
export interface Section {
  id: string;
  name: Texts;
  /** Features and parameters in the order they are shown. */
  rows: string[];
}

/** A group of options, and how many of them are picked. */
export interface Feature {
  id: string;
  name: Texts;
  /** Short name for narrow places such as the code rail. */
  short?: Texts;
  help?: Texts;
  /** How many options to pick. */
  least: number;
  most: number;
  options: Option[];
  /** Models inside that have a feature of this id take its value. */
  reachesDown?: boolean;
  /** Given by the site or the customer, not chosen: ways out change it last. */
  given?: boolean;
  /** How its options stand on the sheet; as many as there are say it where it is not given. */
  shown?: 'tabs' | 'table';
  /**
   * What is taken where nothing else speaks: of one choice the first listed that fits, of a multiple choice
   * all listed that fit.
   */
  usual?: string[];
}

/** A choice in a feature. */
export interface Option {
  id: string;
  /** Its letters in the part number. */
  code?: string;
  name: Texts;
  /** Priced and made as this item. */
  item?: string;
  /**
   * A build of this model comes with the option; as many builds as the quantity says, each with choices of
   * its own.
   */
  model?: string;
  /** How many; 1 where not given. A formula alone is not for a person to change. */
  quantity?: Feel | Quantity;
  /** The file of its picture. */
  picture?: string;
}

/** How many of an option are taken. */
export interface Quantity {
  /** The default; with `fixed` the quantity itself. */
  usual: Feel;
  /** Decimals; from 1 in steps of 1 where not given. */
  least?: string;
  most: string;
  step?: string;
  fixed?: boolean;
  /** How it is counted with the quantity of the line; with each piece where not given. */
  counts?: Counting;
}

/** A typed input. */
export type Parameter = NumberParameter | YesNoParameter | ChoiceParameter | TextParameter | DateParameter;

interface ParameterBase {
  id: string;
  name: Texts;
  short?: Texts;
  help?: Texts;
  /** Models inside that have a parameter of this id take its value. */
  reachesDown?: boolean;
  /** Given by the site or the customer, not chosen: ways out change it last. */
  given?: boolean;
}

/** One of a few values that are no items. */
export interface ChoiceParameter extends ParameterBase {
  type: 'choice';
  options: { id: string; code?: string; name: Texts }[];
  optional?: boolean;
  usual?: string;
}

/** Words to engrave or print. Rules may ask for its being there and its length, not for what it says. */
export interface TextParameter extends ParameterBase {
  type: 'text';
  /** Letters as a person counts them: grapheme clusters. */
  most: number;
  optional?: boolean;
  usual?: string;
}

/** ISO days. */
export interface DateParameter extends ParameterBase {
  type: 'date';
  least: string;
  most: string;
  optional?: boolean;
  usual?: Exclude<Proposed, boolean | null>;
}

/** A number with unit, range and step. */
export interface NumberParameter extends ParameterBase {
  type: 'number';
  unit: string;
  least: string;
  most: string;
  step: string;
  /** May stay without a value. */
  optional?: boolean;
  usual?: Exclude<Proposed, boolean | null>;
  /**
   * Values that are an option of a feature: whoever types one is offered that option. A rule has to keep them
   * from being taken here.
   */
  standard?: { of: string; values: Readonly<Record<string, string>> };
}

/** A yes or no. */
export interface YesNoParameter extends ParameterBase {
  type: 'yesno';
  usual?: boolean;
  /** Priced and made as this item when yes. */
  item?: string;
  quantity?: Feel | Quantity;
}

/** A named formula. */
export interface Calculation {
  id: string;
  name: Texts;
  type: 'number' | 'text' | 'yesno';
  unit?: string;
  /** Decimals to show. */
  decimals?: number;
  formula: Feel;
}

/** How much weight a rule has. */
export type Severity = 'error' | 'warning' | 'note';

interface RuleBase {
  id: string;
  reason: Texts;
  /** Where to read more: a path of the help, or an address. */
  help?: string;
  /** ISO dates; inclusive. */
  from?: string;
  until?: string;
  /** In force only where a context input has one of these values, such as {"region": ["eu", "uk"]}. */
  where?: Readonly<Record<string, readonly string[]>>;
}

/** Something that must, cannot, should or shall by itself be; its kind says which. */
export type Rule =
  /** When `when` holds, `must` holds too. */
  | (RuleBase & { kind: 'require'; when?: Feel; must: Feel; severity?: Severity })
  /** The conditions cannot all hold. */
  | (RuleBase & { kind: 'exclude'; all: Feel[]; severity?: Severity })
  /** A number stays between two formulas. */
  | (RuleBase & { kind: 'limit'; of: string; when?: Feel; least?: Feel; most?: Feel; severity?: Severity })
  /**
   * Only the listed combinations are allowed, or none of them. Cells are FEEL unary tests; "-" is anything.
   */
  | (RuleBase & {
      kind: 'table';
      of: string[];
      rows: string[][];
      listed: 'allowed' | 'forbidden';
      severity?: Severity;
    })
  /** When `when` holds the value is `value`: firmly, or as advice that a person may change. */
  | (RuleBase & { kind: 'set'; of: string; when?: Feel; value: Proposed; firm: boolean })
  /** The default under a condition. */
  | (RuleBase & { kind: 'usual'; of: string; when?: Feel; value: Proposed })
  /** The feature or parameter exists only when `when` holds. */
  | (RuleBase & { kind: 'show'; of: string; when: Feel })
  /** A warning or note while `when` holds. */
  | (RuleBase & { kind: 'say'; when: Feel; severity: 'warning' | 'note' });

/**
 * The value of a decision: an option id or null for none (feature with most = 1), taken or not (one option of
 * a multiple choice, addressed as "feature.option", or a yes/no parameter), a decimal written out (number
 * parameter), an ISO day, a text; null also where an optional parameter has none.
 */
export type DecisionValue = string | boolean | null;

/** A piece of the part number, and when it is there. */
export type Segment = { before?: string; when?: Feel } & (
  | { kind: 'text'; text: string }
  /** Code of the option chosen. */
  | { kind: 'code'; of: string }
  /** A number, times a factor, padded to a width. */
  | { kind: 'number'; of: string; times?: string; width: number }
  /** Codes of all options taken of a multiple choice, in the order of the options. */
  | { kind: 'letters'; of: string }
  /** A letter for each of several conditions that is met, in their order; nothing where none is. */
  | { kind: 'marks'; of: { text: string; when: Feel }[] }
  /**
   * A registered number for the values that codes cannot say, those of the builds that a row brings among
   * them.
   */
  | { kind: 'sequence'; of: string[]; width: number }
  /** A check character over all letters and digits before it, by ISO 7064 MOD 37,36. */
  | { kind: 'check' }
);

/** A part of the list price. */
export interface PricePart {
  id: string;
  name: Texts;
  item: string;
  quantity: Feel;
  when?: Feel;
}

/** Something added to the list price by a formula. */
export interface Surcharge {
  id: string;
  name: Texts;
  /** Price parts it is a share of. */
  of: string[];
  /** 0.06 is 6 %. */
  rate: Feel;
  when: Feel;
}

/** What something costs less for standing inside this model, such as a part of a bundle. */
export interface InsidePrice {
  id: string;
  name: Texts;
  /**
   * Price parts, and options or yes/no parameters with all that they bring; "scale/ridgeback/1/commissioning"
   * is a part of a build inside.
   */
  of: string[];
  /** Share taken off: 0.1 is 10 %, 1 is included without charge. */
  rate: Feel;
  when?: Feel;
}

/** Material that a build needs. */
export interface MaterialRow {
  id: string;
  item: string;
  quantity: Feel;
  when?: Feel;
  /** Share lost in cutting: 0.05 is 5 %. */
  scrap?: string;
  /** Cut length in metres. */
  cut?: Feel;
  /** How it is counted with the quantity of the line; with each piece where not given. */
  counts?: Counting;
}

/** A step in making it. */
export interface OperationRow {
  id: string;
  name: Texts;
  centre: string;
  /** Hours. */
  setUp: Feel;
  /** Hours. */
  run: Feel;
  when?: Feel;
  /** Instruction; {name} is filled with the value of that name. */
  text: Texts;
}

/** Calculations that are shown beside a build. */
export interface Figures {
  mass?: string;
  installation?: string;
  more: string[];
}
