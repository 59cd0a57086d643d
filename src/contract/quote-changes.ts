/**
 * What differs between two views of a quote, so that an answer to one edit of a thousand lines is as short as
 * the edit.
 */
import type { LineView, QuoteView } from './quote-view';
import type { SignOffsOfQuote } from './sign-off-view';

type Judged = SignOffsOfQuote['judged'][number];

/** What is otherwise in a newer view of a quote. */
export interface QuoteChanges {
  /** The stand of the view that these are to be applied to. */
  had: string;
  /** What stands on the view itself and is another; null under `gone`. */
  fields: Partial<Omit<QuoteView, 'lines' | 'signOff'>>;
  gone: (keyof QuoteView)[];
  /** Lines that are new or otherwise than before. */
  lines: LineView[];
  /** All lines in their order; absent where these are the same as before. */
  order?: string[];
  /** Where it is otherwise: as `judged` only what is. */
  signOff?: SignOffsOfQuote;
  /** Which of `judged` there are, in their order; absent where these are the same as before. */
  judgedOrder?: string[];
}

/** Whether an answer tells only what differs. */
export const isChanges = (answer: QuoteView | QuoteChanges): answer is QuoteChanges => 'had' in answer;

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
const keyOf = ({ line, by }: Judged): string => `${line} ${by}`;
const sameTexts = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((each, index) => each === b[index]);

/** Compared one by one, since of a thousand that were judged mostly one is otherwise. */
function sameSignOff(before: SignOffsOfQuote | undefined, after: SignOffsOfQuote): boolean {
  if (
    !before ||
    before.judged.length !== after.judged.length ||
    !before.judged.every((each, index) => same(each, after.judged[index]))
  )
    return false;
  return same({ ...before, judged: [] }, { ...after, judged: [] });
}

/** What is otherwise in the view after. */
export function changesBetween(before: QuoteView, after: QuoteView): QuoteChanges {
  const fields: Record<string, unknown> = {};
  const { lines: _lines, signOff: _signOff, ...plain } = after;
  for (const [key, value] of Object.entries(plain))
    if (!same(before[key as keyof QuoteView], value)) fields[key] = value;
  const had = new Map(before.lines.map((line) => [line.id, line]));
  const judged = new Map(before.signOff?.judged.map((each) => [keyOf(each), each]));
  const lines = after.lines.filter((line) => !same(had.get(line.id), line));
  const order = after.lines.map(({ id }) => id);
  const of = after.signOff?.judged.map(keyOf) ?? [];
  return {
    had: before.stand,
    fields: fields,
    gone: (Object.keys(before) as (keyof QuoteView)[]).filter(
      (key) => before[key] !== undefined && after[key] === undefined,
    ),
    lines,
    ...(sameTexts(
      order,
      before.lines.map(({ id }) => id),
    )
      ? {}
      : { order }),
    ...(!after.signOff || sameSignOff(before.signOff, after.signOff)
      ? {}
      : {
          signOff: {
            ...after.signOff,
            judged: after.signOff.judged.filter((each) => !same(judged.get(keyOf(each)), each)),
          },
        }),
    ...(sameTexts(of, before.signOff?.judged.map(keyOf) ?? []) ? {} : { judgedOrder: of }),
  };
}

/** The view after the changes. What did not change stays the same object. */
export function withChanges(
  before: QuoteView,
  { fields, gone, lines, order, signOff, judgedOrder }: QuoteChanges,
): QuoteView {
  const changed = new Map(lines.map((line) => [line.id, line]));
  const had = new Map(before.lines.map((line) => [line.id, line]));
  const all = order
    ? order.flatMap((id) => changed.get(id) ?? had.get(id) ?? [])
    : before.lines.map((line) => changed.get(line.id) ?? line);
  const left = new Set<string>(gone);
  const after = {
    ...Object.fromEntries(Object.entries(before).filter(([key]) => !left.has(key))),
    ...fields,
    lines: all,
  } as QuoteView;
  if (!signOff) return after;
  const judged = new Map(
    [...(before.signOff?.judged ?? []), ...signOff.judged].map((each) => [keyOf(each), each]),
  );
  const of = judgedOrder ?? before.signOff?.judged.map(keyOf) ?? [];
  return { ...after, signOff: { ...signOff, judged: of.flatMap((key) => judged.get(key) ?? []) } };
}
