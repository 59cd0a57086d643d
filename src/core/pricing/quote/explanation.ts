/** What the explanation of a figure is: the figures it is made of, and how. */
import type { ExactText } from '../../exact';
import type { WalkStep } from '../types';

/** A figure of a line. */
export type LineFigure =
  | 'unitList'
  | 'unitNet'
  | 'list'
  | 'before'
  | 'share'
  | 'net'
  | 'oneTime'
  | 'perMonth'
  | 'firstYear'
  | 'cost'
  | 'margin'
  | 'markUp';
/** A figure of a quote. */
export type QuoteFigure =
  | 'list'
  | 'net'
  | 'reduction'
  | 'oneTime'
  | 'recurring'
  | 'perMonth'
  | 'firstYear'
  | 'share'
  | 'tax'
  | 'gross'
  | 'cost'
  | 'margin';
/**
 * `period` is the place among what recurs in the line's build; without it the figure is of the whole line.
 */
export type Figure =
  { of: 'line'; line: string; what: LineFigure; period?: number } | { of: 'quote'; what: QuoteFigure };

/** What a figure is made of: another figure, a step of the walk, or something given. */
export type Operand = {
  value: ExactText;
  /** The value counts so many times; -1 takes it off. */
  times?: ExactText;
  /** And is divided by so much. */
  per?: ExactText;
} & (
  | { is: 'figure'; figure: Figure }
  | { is: 'step'; step: WalkStep }
  | { is: 'once' | 'costEach' }
  | { is: 'taxed'; rate: ExactText; net: ExactText }
);

/** What a figure is made of, and how. */
export interface Explanation {
  figure: Figure;
  value: ExactText;
  /** Summed, each times and per what it says. */
  of: Operand[];
  /** The sum is divided by this. */
  over?: Operand;
  /** Rounded half up to so many decimals, once, at the end. */
  rounded?: number;
  /** A part of a whole spread by largest remainder: less than a minor unit from what the operands come to. */
  spread?: true;
}

/** What has to be known of a line to explain its figures. */
export interface ExplainedLine {
  id: string;
  counts: boolean;
  terms: { quantity: number };
}
