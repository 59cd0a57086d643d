/** Revisions of a quote: how one stands, and what differs between two. */
import type { ExactText } from '../exact';
import type { Texts } from '../model';
import type { Totals } from '../pricing';

/** As it is kept. What was sent, lost or accepted never changes; a newer revision starts as a copy of it. */
export type RevisionState = 'draft' | 'sent' | 'lost' | 'accepted';

/** As it is shown: a draft waits for sign-off, or is ready to be sent; what was sent runs out. */
export type ShownState = RevisionState | 'signOff' | 'ready' | 'expired';

/** Why a quote may be lost. */
export const lostReasons = ['price', 'time', 'fit', 'need', 'silence', 'other'] as const;
/** Why a quote was lost; the note is for colleagues. */
export interface Lost {
  reason: (typeof lostReasons)[number];
  note: string;
}

/** A lease as it is offered beside the price. */
export interface QuoteLease {
  months: number;
  /** 0.054 is 5.4 % a year. */
  yearlyRate: ExactText;
  /** What it is worth at the end; absent where nothing. */
  residual?: ExactText;
  /** Due at the beginning of each month. */
  inAdvance: boolean;
}

/** What decides how a revision is shown. */
export interface Standings {
  state: RevisionState;
  /** Last day on which it can be accepted. */
  validUntil: string;
  /** Somebody has been asked to sign, and has not answered. */
  asked: boolean;
  /** Has lines, all of which can be sold, and all that must be signed is. */
  sendable: boolean;
}

/** How a revision is shown on a day. */
export function shownState({ state, validUntil, asked, sendable }: Standings, today: string): ShownState {
  if (state === 'draft') return asked ? 'signOff' : sendable ? 'ready' : 'draft';
  return state === 'sent' && validUntil < today ? 'expired' : state;
}

/** A line as it is compared. */
export interface SideLine {
  /** The same line has the same in all revisions. */
  origin: string;
  position: number;
  name: Texts;
  partNumber: string;
  quantity: number;
  /** In the totals. */
  counts: boolean;
  unitNet: ExactText;
  net: ExactText;
  /** What was chosen of a build, in words. */
  choices: readonly { row: string; name: Texts; value: Texts }[];
}

/** A revision as it is compared. */
export interface Side {
  number: number;
  currency: string;
  decimals: number;
  validUntil: string;
  customer: string;
  totals: Pick<Totals, 'list' | 'net' | 'oneTime' | 'recurring' | 'firstYear'>;
  lines: readonly SideLine[];
}

/** A line of two revisions. */
export type ComparedLine =
  | { is: 'added'; after: SideLine }
  | { is: 'removed'; before: SideLine }
  | {
      is: 'changed' | 'same';
      before: SideLine;
      after: SideLine;
      /** Choices of the build that differ; without a value where it has none. */
      choices: { row: string; name: Texts; before?: Texts; after?: Texts }[];
    };

/** What differs between two revisions. */
export interface Comparison {
  before: Omit<Side, 'lines'>;
  after: Omit<Side, 'lines'>;
  /** In the order of the newer one; what was removed stands where it was. */
  lines: ComparedLine[];
}

const compared = ['partNumber', 'quantity', 'counts', 'unitNet', 'net'] as const;

/** What differs between two revisions, line by line. */
export function compareRevisions(
  { lines: had, ...before }: Side,
  { lines: has, ...after }: Side,
): Comparison {
  return { before, after, lines: compareLines(had, has) };
}

/** Lines in other places are the same lines. */
export function compareLines(before: readonly SideLine[], after: readonly SideLine[]): ComparedLine[] {
  const had = new Map(before.map((line) => [line.origin, line]));
  const has = new Set(after.map((line) => line.origin));
  const lines = after.map((line): ComparedLine => {
    const was = had.get(line.origin);
    return was ? pairOf(was, line) : { is: 'added', after: line };
  });
  for (const [index, line] of before.entries()) {
    if (has.has(line.origin)) continue;
    // After the nearest line before it that is still there.
    const anchor = before
      .slice(0, index)
      .reverse()
      .find(({ origin }) => lines.some((each) => originOf(each) === origin));
    const at = anchor ? lines.findIndex((each) => originOf(each) === anchor.origin) + 1 : 0;
    lines.splice(at, 0, { is: 'removed', before: line });
  }
  return lines;
}

const originOf = (line: ComparedLine): string =>
  line.is === 'removed' ? line.before.origin : line.after.origin;

function pairOf(before: SideLine, after: SideLine): ComparedLine {
  const [was, is] = [
    new Map(before.choices.map((each) => [each.row, each])),
    new Map(after.choices.map((each) => [each.row, each])),
  ];
  const choices = [...new Set([...is.keys(), ...was.keys()])].flatMap((row) => {
    const [old, now] = [was.get(row), is.get(row)];
    if (old && now && JSON.stringify(old.value) === JSON.stringify(now.value)) return [];
    return [
      {
        row,
        name: (now ?? old)?.name ?? {},
        ...(old ? { before: old.value } : {}),
        ...(now ? { after: now.value } : {}),
      },
    ];
  });
  const same = choices.length === 0 && compared.every((key) => before[key] === after[key]);
  return { is: same ? 'same' : 'changed', before, after, choices };
}
