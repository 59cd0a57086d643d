/** How far a role may go by itself, and who signs what goes further. */
import {
  exact,
  fixed,
  minus,
  negative,
  nothing,
  ofWhole,
  ratio,
  textOf,
  times,
  zero,
  type ExactText,
  type Fixed,
} from '../../exact';
import type { LinePrice, WalkStep } from '../types';
import type { PolicyHit } from '../quote/quote-formulas';
import { sidesOf } from '../line/walk';

/**
 * Of a role, for a family or for all. Of a discount the target is least and the floor most; of a margin the
 * other way round.
 */
export interface Limit {
  role: string;
  family?: string;
  by: 'discount' | 'margin';
  target: ExactText;
  limit: ExactText;
  floor: ExactText;
  /** Signs what is beyond the limit. */
  signs: string;
  /** Signs too what is beyond the floor. */
  above: string;
}

/** What a line comes to. Margin is absent where there is none to speak of. */
export interface LineFigures {
  line: string;
  family: string;
  /**
   * What is given away by hand and with the whole quote, as a share of what the line would net to without.
   */
  discount: ExactText;
  margin?: ExactText;
}

/** How far a discount or margin goes. */
export type Reach = 'onTarget' | 'withinLimit' | 'beyondLimit' | 'beyondFloor';

/** A figure of a line held against a limit. */
export interface Judged {
  line: string;
  by: Limit['by'];
  reach: Reach;
  figure: ExactText;
  limit: Limit;
  /** Who must sign, the nearest first; nobody within the limit. */
  signers: string[];
}

/** Where a figure stands. What is exactly at a border has not crossed it. */
export function reachOf({ by, target, limit, floor }: Limit, figure: ExactText): Reach {
  const beyond = (border: ExactText) =>
    by === 'discount' ? exact(figure).gt(border) : exact(figure).lt(border);
  if (beyond(floor)) return 'beyondFloor';
  if (beyond(limit)) return 'beyondLimit';
  return beyond(target) ? 'withinLimit' : 'onTarget';
}

const one = ofWhole(1);

/**
 * What is given away on a line beyond what the customer is granted anyway, and what it earns. What was typed
 * is judged as it was typed:
 * `whole` is the share that the whole-quote discount takes off all lines alike, whose cents fall on one line
 * or another, and a margin
 * typed for the line is that margin, whatever rounding makes of it.
 */
export function figuresOf(line: string, family: string, price: LinePrice, whole?: ExactText): LineFigures {
  const given = price.subscriptions ? givenInAll(sidesOf(price), whole) : givenBy(price, whole);
  const typed =
    price.share === undefined ? price.steps.find(({ kind }) => kind === 'discount')?.typed : undefined;
  const margin = price.margin !== undefined && typed?.by === 'margin' ? typed.value : price.margin;
  return { line, family, discount: textOf(given), ...(margin === undefined ? {} : { margin }) };
}

/** By agreed rates, by hand and with the whole quote, as a share. */
const givenBy = (price: LinePrice, whole: ExactText | undefined): Fixed =>
  minus(one, times(keptBy(price, ['rates', 'discount']), keptOfWhole(price, whole)));

/** What steps of some kinds leave, as a share. */
function keptBy({ steps }: LinePrice, kinds: readonly WalkStep['kind'][]): Fixed {
  let left = one;
  for (const { kind, amount, total } of steps)
    if (kinds.includes(kind))
      left = times(left, kept(minus(fixed(total), fixed(amount)), negative(fixed(amount))));
  return left;
}

/**
 * What the whole-quote discount leaves, as a share: by what was typed where that is told, else by the cents
 * that fell on the line.
 */
const keptOfWhole = ({ before, share }: LinePrice, whole: ExactText | undefined): Fixed =>
  share === undefined || before === undefined
    ? one
    : whole === undefined
      ? kept(fixed(before), fixed(share))
      : minus(one, fixed(whole));
const kept = (of: Fixed, share: Fixed): Fixed =>
  minus(one, of.units === 0n ? nothing : fixed(ratio(share, of)));

/**
 * What a line would give away, or earn, at a discount or margin typed for it, where the whole quote takes the
 * same share of it as now.
 */
export function figureAt(price: LinePrice, by: Limit['by'], typed: ExactText, whole?: ExactText): ExactText {
  const left = keptOfWhole(price, whole);
  const rest = minus(one, fixed(typed));
  if (by === 'discount') return textOf(minus(one, times(times(keptBy(price, ['rates']), rest), left)));
  return left.units === 0n ? typed : textOf(minus(one, fixed(ratio(rest, left))));
}

/** Of what is due once and what recurs together: each counts with what it would net to without. */
function givenInAll(sides: readonly LinePrice[], whole: ExactText | undefined): Fixed {
  let [net, without] = [zero, zero];
  for (const side of sides) {
    const left = exact(textOf(minus(one, givenBy(side, whole))));
    net = net.plus(side.net);
    // What is given away whole leaves nothing from which to tell what it was.
    without = without.plus(left.isZero() ? side.list : exact(side.net).div(left));
  }
  // What is exactly at a limit must not come to lie beyond it in the last of many digits.
  return without.isZero() ? nothing : fixed(exact(1).minus(net.div(without)).toDecimalPlaces(18).toString());
}

/** The limit that concerns a family, of those of one role; one for the family comes before one for all. */
export const limitFor = (limits: readonly Limit[], family: string, by: Limit['by']): Limit | undefined =>
  limits.find((each) => each.by === by && each.family === family) ??
  limits.find((each) => each.by === by && each.family === undefined);

/** Every line by every limit of the role that concerns it. */
export function judge(lines: readonly LineFigures[], limits: readonly Limit[], role: string): Judged[] {
  const own = limits.filter((limit) => limit.role === role);
  return lines.flatMap((line) =>
    (['discount', 'margin'] as const).flatMap((by): Judged[] => {
      const figure = line[by];
      const limit = limitFor(own, line.family, by);
      if (!limit || figure === undefined) return [];
      const reach = reachOf(limit, figure);
      const signers =
        reach === 'beyondFloor' ? [limit.signs, limit.above] : reach === 'beyondLimit' ? [limit.signs] : [];
      return [{ line: line.line, by, reach, figure, limit, signers: [...new Set(signers)] }];
    }),
  );
}

/**
 * Whether a sign-off still holds: every line that needs one was signed, and its figure is no worse than then.
 * `signed` is what stood there when it was given.
 */
export function stillHolds(signed: readonly LineFigures[], now: readonly Judged[]): boolean {
  const then = new Map(signed.map((line) => [line.line, line]));
  return now.every(({ line, by, figure, signers }) => {
    if (signers.length === 0) return true;
    const was = then.get(line)?.[by];
    if (was === undefined) return false;
    return by === 'discount' ? exact(figure).lte(was) : exact(figure).gte(was);
  });
}

/** A sign-off as it was given: by whom, for which figures. */
export interface Signed {
  /** Of the role that signed. */
  role: string;
  figures: readonly LineFigures[];
  policies?: readonly PolicyHit[];
}

/** What a role must sign on a quote, and whether what it signed last still holds. */
export interface Need {
  role: string;
  judged: Judged[];
  policies: PolicyHit[];
  held: boolean;
}

/** Whether nothing that a policy read is worse than when it was signed. */
function noWorse(signed: PolicyHit, now: PolicyHit): boolean {
  const then = new Map(signed.read.split(';').map((each) => each.split('=') as [string, string]));
  return now.read.split(';').every((each) => {
    const [name = '', value = ''] = each.split('=');
    const was = then.get(name);
    if (was === value) return true;
    const worse = now.worse?.[name];
    if (was === undefined || was === 'null' || value === 'null' || worse === undefined) return false;
    return worse === 'more' ? exact(value).lte(was) : exact(value).gte(was);
  });
}

/**
 * By role, the nearest first. `signed` in the order given: of a role the last counts. What a policy read must
 * be no worse than what was signed.
 */
export function needsOf(
  judged: readonly Judged[],
  signed: readonly Signed[],
  policies: readonly PolicyHit[] = [],
): Need[] {
  const roles = [
    ...new Set(
      [
        ...judged.map(({ signers }) => signers[0]),
        ...judged.map(({ signers }) => signers[1]),
        ...policies.map(({ signs }) => signs),
      ].filter((role) => role !== undefined),
    ),
  ];
  return roles.map((role) => {
    const own = judged.filter(({ signers }) => signers.includes(role));
    const last = [...signed].reverse().find((each) => each.role === role);
    const asked = policies.filter(({ signs }) => signs === role);
    const signedToo = asked.every(
      (hit) => last?.policies?.some((each) => each.id === hit.id && noWorse(each, hit)) ?? false,
    );
    return {
      role,
      judged: own,
      policies: asked,
      held: last !== undefined && stillHolds(last.figures, own) && signedToo,
    };
  });
}
