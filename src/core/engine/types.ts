/** What the engine is asked, and what it answers. */
import type { DecisionValue, PlainValue, Severity, Texts, Values } from '../model';

/** What is fixed from outside a build. */
export interface Context {
  /** ISO date; decides which rules are in force. */
  date: string;
  values: Readonly<Record<string, string>>;
}

/** What one engine may take for one question. */
export interface Limits {
  /** Conflicts of the search; how far one gets with them does not depend on the machine. */
  budget?: number;
  /** Asked now and then; true ends the question. */
  stop?: () => boolean;
}

/** One value that a person set. `on` is "feature", "feature.option" (taken or not) or "parameter". */
export interface Decision {
  on: string;
  value: DecisionValue;
}

/** What a state is worked out from. */
export interface EngineInput {
  /** From the needs answered; a person's decision on the same thing wins. */
  asked?: readonly Decision[];
  decisions: readonly Decision[];
}

/** Where a value comes from. */
export type Source = 'yours' | 'asked' | 'follows' | 'advised' | 'usual' | 'open';
/** free: can be taken now. swap: could, if decisions change. barred: cannot be had in this context. */
export type Standing = 'free' | 'swap' | 'barred';

/** How an option stands. */
export interface OptionState {
  id: string;
  standing: Standing;
  taken: boolean;
  /** Where the option's being taken or not comes from. */
  source: Source;
  /** Whether a person may still change it: false where a rule forces it. */
  changeable: boolean;
  /** The budget ended before it was known whether it is free: it is shown as if it were not. */
  unproven?: true;
}

/**
 * Allowed numbers from least to most, in the parameter's steps; of a date ISO days, of a text its lengths.
 */
export interface AllowedRange {
  least: string;
  most: string;
}

/** How a row stands: its value, where that comes from, what can be had. */
export interface RowState {
  id: string;
  shown: boolean;
  /** Absent while open. */
  value?: PlainValue;
  source: Source;
  /** Something must still be chosen. */
  todo: boolean;
  /** A decision on it cannot stand beside others. */
  clashing: boolean;
  /** Of a feature. */
  options?: OptionState[];
  /** Of a number: exactly the values that lead to a complete build. */
  allowed?: AllowedRange[];
  /** Of an optional number, date or text: whether it may stay without a value. */
  mayBeEmpty?: boolean;
  /** Of a yes/no parameter. */
  yes?: Standing;
  no?: Standing;
  /** The budget ended before its values, its being there, or what it comes to by itself was decided. */
  unproven?: true;
}

/** One thing that takes part in a "no". */
export type Cause =
  | { kind: 'decision'; decision: Decision }
  /** `help`: where to read more. */
  | { kind: 'rule'; rule: string; reason: Texts; help?: string }
  /** What a feature itself asks, such as a least number of options. */
  | { kind: 'shape'; row: string };

/** Decisions that cannot stand together. */
export interface Clash {
  decisions: Decision[];
  causes: Cause[];
}

/** A warning or note that a rule says. */
export interface Message {
  rule: string;
  severity: Exclude<Severity, 'error'>;
  text: Texts;
  /** Where to read more. */
  help?: string;
}

/** All that follows from decisions. */
export interface State {
  rows: Readonly<Record<string, RowState>>;
  /**
   * Values by id of what is settled, context included; what prices, part number and materials are read from.
   */
  values: Values;
  clashes: Clash[];
  messages: Message[];
  sections: { id: string; shown: boolean; todo: number; clashes: number }[];
  /** Nothing to do and no clash: the build can be sold and made. */
  complete: boolean;
  /** The budget ended somewhere: what is claimed is true, but something that could be had may be missing. */
  unproven?: true;
}

/** Something wanted that does not stand now. */
export interface Target {
  on: string;
  value: DecisionValue;
}

/** Decisions to change so that a wish can stand. */
export interface WayOut {
  /** Decisions that change: from what, to what; undefined where it is left to the rules. */
  changes: { on: string; from: DecisionValue; to: DecisionValue | undefined }[];
  /**
   * Rows that change though the site or the customer gives them; absent where none does. Such ways come last.
   */
  given?: string[];
  /** The decisions after taking this way out, the wished-for one included. */
  decisions: Decision[];
  state: State;
}
