/**
 * A quote priced again in the page with what is being changed, by the same computation as on the server,
 * which has the last word.
 */
import { exact } from '../../../core/exact';
import {
  pricer,
  taxed,
  type LinePrice,
  type Offer,
  type PricedLine,
  type QuoteLine,
  type Term,
  type Typed,
} from '../../../core/pricing';
import type { LineProblem, LineView, QuoteView } from '../../../contract';

/** A change whose effect is shown before the server has answered. */
export type LocalEdit =
  | {
      of: 'line';
      line: string;
      quantity?: number;
      hand?: Typed | null;
      locked?: boolean;
      optional?: boolean;
      term?: Term;
      typedPrice?: string;
      typedCost?: string | null;
    }
  | { of: 'quote'; whole: Typed | null };

/** Problems that do not come from pricing, and so stay as they were. */
export const ofBuilds: ReadonlySet<string> = new Set<LineProblem['code']>([
  'line.todo',
  'line.clash',
  'line.warning',
]);

/**
 * Gives a function that prices a quote anew with edits applied. Lines that come out as they were stay the
 * same objects, and only those that an edit changes are worked out, so that an edit of one of a thousand
 * lines costs little. null where the page lacks what it takes.
 */
export function requoter(): (view: QuoteView, edits: readonly LocalEdit[]) => QuoteView | null {
  const price = pricer();
  let kept = new Map<LineView, QuoteLine>();
  return (view, edits) => {
    const lines = view.lines.map((line) => edited(line, edits));
    const fresh = new Map<LineView, QuoteLine>();
    const asked: QuoteLine[] = [];
    for (const line of lines) {
      const made = kept.get(line) ?? quoteLine(line);
      if (!made) return null;
      fresh.set(line, made);
      asked.push(made);
    }
    kept = fresh;
    const typed = edits.reduce((whole, edit) => (edit.of === 'quote' ? edit.whole : whole), view.whole.typed);
    const {
      lines: priced,
      totals,
      whole,
    } = price(asked, { decimals: view.decimals, ...(typed ? { whole: typed } : {}) });
    const shown = lines.map((line, index) => withPrice(line, priced[index] as PricedLine));
    const counted = shown.filter((line) => !line.optional && !line.alternative);
    const { tax: _tax, ...open } = view;
    return {
      ...open,
      lines: shown,
      totals,
      whole: { typed, comes: whole },
      ...(view.tax && counted.every((line) => line.taxRate !== undefined)
        ? {
            tax: taxed(
              counted.map((line) => ({ net: line.price.net, rate: line.taxRate ?? '0' })),
              view.decimals,
            ),
          }
        : {}),
    };
  };
}

/**
 * Edited lines by the line before and the edits, so that the same edit of the same line is the same object.
 */
const editedLines = new WeakMap<LineView, { edits: string; line: LineView }>();

function edited(line: LineView, edits: readonly LocalEdit[]): LineView {
  const own = edits.flatMap((edit) => (edit.of === 'line' && edit.line === line.id ? [edit] : []));
  if (own.length === 0) return line;
  const key = JSON.stringify(own);
  const known = editedLines.get(line);
  if (known?.edits === key) return known.line;
  const made = own.reduce<LineView>(
    (all, { of: _of, line: _line, term, ...change }) => ({
      ...all,
      ...change,
      ...(term && all.recurs ? { recurs: { ...all.recurs, term } } : {}),
    }),
    line,
  );
  editedLines.set(line, { edits: key, line: made });
  return made;
}

function quoteLine(line: LineView): QuoteLine | null {
  const { basis, build, recurs } = line;
  if (!basis) return null;
  const cost = line.typedCost ?? (typeof basis.cost === 'string' ? basis.cost : undefined);
  const wantsCost =
    cost === undefined &&
    typeof basis.cost !== 'object' &&
    (line.hand?.by === 'margin' || basis.entry?.method === 'costPlus');
  if (wantsCost) return null;
  const offer: Offer = build
    ? {
        is: 'build',
        parts: build.parts,
        unpriced: build.unpriced,
        ...(typeof basis.cost === 'object' ? { cost: basis.cost } : {}),
      }
    : {
        is: 'item',
        name: line.name,
        ...(basis.entry ? { entry: basis.entry } : {}),
        ...(basis.agreed ? { rates: basis.agreed } : {}),
        ...(line.typedPrice ? { typed: exact(line.typedPrice).toString() } : {}),
        ...(cost === undefined ? {} : { cost }),
      };
  return {
    id: line.id,
    sku: line.sku,
    family: line.family,
    counts: !line.alternative && !line.optional,
    locked: line.locked,
    discountable: line.discountable,
    offer,
    ...(basis.mass === undefined ? {} : { mass: basis.mass }),
    terms: {
      ...basis.granted,
      quantity: line.quantity,
      ...(line.hand ? { hand: line.hand } : {}),
      ...(build && recurs ? { term: recurs.term } : {}),
    },
    ...(recurs && !build
      ? {
          recurs: {
            every: {
              baseMonths: recurs.baseMonths,
              ...(recurs.leastMonths > 0 ? { leastMonths: recurs.leastMonths } : {}),
            },
            term: recurs.term,
          },
        }
      : {}),
  };
}

/** Priced lines by line and price, so that what came out the same is the same object. */
const shownLines = new WeakMap<LineView, { from: LinePrice; line: LineView }>();

function withPrice(line: LineView, { price, problems }: PricedLine): LineView {
  const known = shownLines.get(line);
  if (known?.from === price) return known.line;
  const made = {
    ...line,
    price,
    problems: [...line.problems.filter(({ code }) => ofBuilds.has(code)), ...problems],
  };
  const shown = JSON.stringify(made) === JSON.stringify(line) ? line : made;
  shownLines.set(line, { from: price, line: shown });
  return shown;
}

const kept = <T>(before: T, after: T): T =>
  before !== after && JSON.stringify(before) === JSON.stringify(after) ? before : after;

/**
 * A newer view of which everything that is as it was stays the same object, so that nothing that shows it is
 * drawn again.
 */
export function sameWhereEqual(before: QuoteView, after: QuoteView): QuoteView {
  const had = new Map(before.lines.map((line) => [line.id, line]));
  const judged = new Map(before.signOff?.judged.map((each) => [`${each.line} ${each.by}`, each]));
  return {
    ...after,
    may: kept(before.may, after.may),
    customer: kept(before.customer, after.customer),
    revisions: kept(before.revisions, after.revisions),
    lines: after.lines.map((line) => kept(had.get(line.id) ?? line, line)),
    ...(after.resale ? { resale: kept(before.resale ?? after.resale, after.resale) } : {}),
    ...(after.signOff
      ? {
          signOff: {
            ...after.signOff,
            limits: kept(before.signOff?.limits ?? after.signOff.limits, after.signOff.limits),
            judged: after.signOff.judged.map((each) =>
              kept(judged.get(`${each.line} ${each.by}`) ?? each, each),
            ),
          },
        }
      : {}),
  };
}
