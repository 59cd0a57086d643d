/**
 * A whole quote: every line walked, what is a share of others after them, and the whole-quote discount over
 * all that may be discounted.
 */
import { fixed, nothing, ofQuantity, plus, textOf, times, type Fixed } from '../../exact';
import { isLate, priceLine, type Others } from '../line/line-price';
import { AmountSum } from './totals';
import { withShare } from '../line/walk';
import { withMargins } from '../limits/margins';
import { BeforeWhole, spreadWhole } from './whole';
import type { PricedLine, PricedQuote, QuoteLine, QuoteTerms } from './quote-types';

/** A line as it was worked out, and as it was told last. */
interface Kept {
  line: QuoteLine;
  /** Without its share of the whole-quote discount; its margins are there once it was told like this. */
  alone: PricedLine;
  /** In minor units. */
  share: number | bigint;
  shared?: PricedLine;
}

/** Prices a quote. The order of the lines makes no difference. */
export const priceQuote = (lines: readonly QuoteLine[], terms: QuoteTerms): PricedQuote =>
  pricer()(lines, terms);

/** Prices a quote again and again, and works out anew only what has changed since the last time. */
export function pricer(): (lines: readonly QuoteLine[], terms: QuoteTerms) => PricedQuote {
  let last: Pricing | undefined;
  return (lines, terms) => {
    // Mostly the lines are those of the last time, but for one.
    if (!last || !last.takes(lines, terms.decimals)) last = new Pricing(lines, terms.decimals, last);
    return last.less(terms);
  };
}

/** The lines of a quote with what they come to, and sums that follow when one of them changes. */
class Pricing {
  private readonly all: Kept[];
  private readonly before: BeforeWhole;
  /** Of what was told. */
  private readonly after = new AmountSum();

  constructor(
    lines: readonly QuoteLine[],
    private readonly decimals: number,
    last?: Pricing,
  ) {
    const kept =
      last?.decimals === decimals ? new Map(last.all.map((each) => [each.line.id, each])) : undefined;
    const first = lines.map((line) => {
      if (isLate(line)) return null;
      const had = kept?.get(line.id);
      return had?.line === line ? had : this.priced(line);
    });
    const others = first.includes(null) ? othersOf(first) : undefined;
    this.all = first.map((each, index) => each ?? this.priced(lines[index] as QuoteLine, others));
    this.before = new BeforeWhole(this.all, decimals);
    for (const { line, shared } of this.all) if (shared && line.counts) this.after.add(shared.price);
  }

  /** Takes over lines that differ from these in little; false where they do not. */
  takes(lines: readonly QuoteLine[], decimals: number): boolean {
    if (decimals !== this.decimals || lines.length !== this.all.length) return false;
    const changed: number[] = [];
    for (let index = 0; index < lines.length; index++) {
      const [line, had] = [lines[index] as QuoteLine, (this.all[index] as Kept).line];
      if (had === line && !isLate(line)) continue;
      if (had.id !== line.id || isLate(line) || isLate(had)) return false;
      changed.push(index);
    }
    for (const index of changed) {
      const [old, fresh] = [this.all[index] as Kept, this.priced(lines[index] as QuoteLine)];
      this.before.replace(index, old, fresh);
      if (old.shared && old.line.counts) this.after.add(old.shared.price, -1);
      this.all[index] = fresh;
    }
    return true;
  }

  private priced(line: QuoteLine, others?: Others): Kept {
    return { line, alone: priceLine(line, this.decimals, others), share: 0, shared: undefined };
  }

  /** With the whole-quote discount of the terms. */
  less(terms: QuoteTerms): PricedQuote {
    const { whole, shares } = spreadWhole(this.before, terms);
    const lines = this.all.map((each, index) => this.told(each, shares?.[index] ?? 0));
    return { lines, totals: this.after.totals(this.decimals), whole };
  }

  /** The line less its share, which is mostly what it was before another line changed. */
  private told(kept: Kept, share: number | bigint): PricedLine {
    if (kept.shared && share === kept.share) return kept.shared;
    const { line, alone } = kept;
    if (kept.shared && line.counts) this.after.add(kept.shared.price, -1);
    const price = withMargins(withShare(alone.price, BigInt(share), this.decimals));
    const shared = price === alone.price ? alone : { id: alone.id, price, problems: alone.problems };
    if (line.counts) this.after.add(price);
    kept.share = share;
    kept.shared = shared;
    return shared;
  }
}

function othersOf(first: readonly (Kept | null)[]): Others {
  let [net, mass] = [nothing, nothing];
  for (const each of first) {
    if (!each?.line.counts) continue;
    net = plus(net, fixed(each.alone.price.net));
    if (each.line.mass !== undefined)
      mass = plus(mass, times(fixed(each.line.mass), ofQuantity(each.line.terms.quantity)));
  }
  return { netOf: netsBefore(first), net: textOf(net), mass: textOf(mass) };
}

function netsBefore(all: readonly (Kept | null)[]): Others['netOf'] {
  return (name) => {
    let sum: Fixed | undefined;
    for (const each of all) {
      if (each?.line.counts && (each.line.sku === name || each.line.family === name))
        sum = plus(sum ?? nothing, fixed(each.alone.price.net));
    }
    return sum && textOf(sum);
  };
}
