/** What a compiled model consists of. */
import type { Counting } from './counting';
import type { FeelType, Formula, Scope } from '../formula';
import type {
  Calculation,
  DateParameter,
  DecisionValue,
  Feature,
  ModelDocument,
  NumberParameter,
  Rule,
  Section,
  Severity,
  TextParameter,
  Texts,
  YesNoParameter,
} from './document';
import type { Grid } from './grid';

interface RowEntry {
  /** With the way to its place in front: "terminals/beacon/1/housing". */
  id: string;
  /** The row exists where this holds: its place does, and all its rules say so. */
  shownWhen?: Formula;
  /** The row's place exists where this holds; absent at the top. */
  placeWhen?: Formula;
  /** The rules that show it: those in force must all say so. */
  shownBy?: readonly ShowRule[];
}

/** When a row is there. */
export interface ShowRule {
  rule: Rule;
  when: Formula;
}

/** One thing a formula may name. Slots are indices into `CompiledModel.entries`. */
export type Entry =
  | { kind: 'context'; id: string; type: FeelType }
  | (RowEntry & { kind: 'feature'; feature: Feature; many: boolean })
  | (RowEntry & {
      kind: 'number';
      parameter: NumberParameter;
      grid: Grid;
      quantityOf?: { feature: string; option: string };
    })
  | (RowEntry & { kind: 'date'; parameter: DateParameter; grid: Grid })
  | (RowEntry & { kind: 'yesno'; parameter: YesNoParameter })
  /** What is typed; what rules see of it is its length. */
  | (RowEntry & { kind: 'text'; parameter: TextParameter; length: number })
  | (RowEntry & { kind: 'length'; text: string; grid: Grid })
  /** `quantityOf`: not a calculation of the document, but the quantity of an option. */
  | {
      kind: 'calculation';
      id: string;
      calculation: Calculation;
      formula: Formula;
      quantityOf?: { feature: string; option: string };
    };

/** A rule as conditions: broken when `when` holds (or is absent) and `must` does not. */
export interface CompiledRule {
  rule: Rule;
  severity: Severity;
  when?: Formula;
  must: Formula[];
  /** For tables: a condition per row. */
  rows?: Formula[][];
  /** For `exclude`: broken when all hold. */
  all?: Formula[];
  /** For limits. */
  least?: Formula;
  most?: Formula;
}

/** A default or an advice: what it proposes, and under which condition. In order of priority. */
export interface Proposal {
  rule?: Rule;
  source: 'advised' | 'usual';
  when?: Formula;
  /** "feature", "feature.option" or "parameter". */
  on: string;
  value: DecisionValue | Formula;
}

/** An option, or a yes/no parameter, that brings something. */
export interface Pick {
  /** "feature.option" or parameter. */
  on: string;
  row: string;
  option?: string;
  name: Texts;
  item?: string;
  /** Row or calculation that gives how many; absent where it is one. */
  quantity?: string;
  counts?: Counting;
  /** Builds of a model that it brings. */
  builds: readonly NestedBuild[];
}

/** A build inside a build. */
export interface NestedBuild {
  /** "terminals/beacon/1". */
  place: string;
  index: number;
  model: CompiledModel;
  /**
   * Ids here of what the inner model calls otherwise, by the inner id; what reaches down stands further out.
   */
  names: ReadonlyMap<string, string>;
  /** Holds where the build exists. */
  when: Formula;
}

/** A section of the sheet; those of a build inside stand behind the one that its option is in. */
export interface PlacedSection extends Section {
  place?: string;
}

/** A model ready to be asked: no document that compiles needs further checks. */
export interface CompiledModel {
  /** With what its classes give. */
  document: ModelDocument;
  entries: readonly Entry[];
  scope: Scope;
  /** Slots by id, those of the builds inside among them. */
  slots: ReadonlyMap<string, number>;
  /** Rules that restrict, warn or speak; `set` firm among them. */
  rules: readonly CompiledRule[];
  proposals: readonly Proposal[];
  /** Of this model itself; those of the builds inside are with their models. */
  picks: readonly Pick[];
  sections: readonly PlacedSection[];
  /**
   * Compiled formulas of prices, surcharges, materials, operations and numbering, by their path in the
   * document.
   */
  formulas: ReadonlyMap<string, Formula>;
}
