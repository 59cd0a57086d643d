/** How far a role may go by itself, and who signs what goes further. */
import { exact, type ExactText } from '../exact';

/** Of a role, for a family or for all. Of a discount the target is least and the floor most; of a margin the other way round. */
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
  /** Share off the list price. */
  discount: ExactText;
  margin?: ExactText;
}

export type Reach = 'onTarget' | 'withinLimit' | 'beyondLimit' | 'beyondFloor';

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
  const beyond = (border: ExactText) => (by === 'discount' ? exact(figure).gt(border) : exact(figure).lt(border));
  if (beyond(floor)) return 'beyondFloor';
  if (beyond(limit)) return 'beyondLimit';
  return beyond(target) ? 'withinLimit' : 'onTarget';
}

/** Every line by every limit of the role that concerns it; one for its family comes before one for all. */
export function judge(lines: readonly LineFigures[], limits: readonly Limit[], role: string): Judged[] {
  const own = limits.filter((limit) => limit.role === role);
  return lines.flatMap((line) =>
    (['discount', 'margin'] as const).flatMap((by): Judged[] => {
      const figure = line[by];
      const limit = own.find((each) => each.by === by && each.family === line.family) ?? own.find((each) => each.by === by && each.family === undefined);
      if (!limit || figure === undefined) return [];
      const reach = reachOf(limit, figure);
      const signers = reach === 'beyondFloor' ? [limit.signs, limit.above] : reach === 'beyondLimit' ? [limit.signs] : [];
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
