import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { priceQuote, type PriceEntry, type QuoteLine, type Typed } from '../../../core/pricing';
import type { LineView, QuoteView } from '../../../contract';
import { requoter, sameWhereEqual, type LocalEdit } from './requote';

const day = '2026-11-26';
const unit = (price: string): PriceEntry => ({ method: 'unit', price });

interface Made {
  entry?: PriceEntry;
  parts?: string[];
  cost?: string;
  family?: string;
  quantity?: number;
  hand?: Typed;
  locked?: boolean;
  optional?: boolean;
  recurs?: boolean;
}

/** What a line is kept as. */
const kept = (
  id: string,
  {
    entry = unit('100.00'),
    parts,
    cost,
    family = 'yard',
    quantity = 1,
    hand,
    locked = false,
    optional = false,
    recurs,
  }: Made,
): QuoteLine => ({
  id,
  sku: `SKU-${id}`,
  family,
  counts: !optional,
  locked,
  discountable: true,
  offer: parts
    ? {
        is: 'build',
        parts: parts.map((amount, index) => ({
          id: String(index),
          kind: 'part',
          name: { en: 'Part' },
          amount,
          ...(recurs && index === 0 ? { recurs: { baseMonths: 12 } } : {}),
        })),
        unpriced: [],
        ...(cost
          ? {
              cost: {
                unit: cost,
                once: '0',
                ...(recurs ? { recurring: { '12__': { unit: '7.25', once: '0' } } } : {}),
              },
            }
          : {}),
      }
    : { is: 'item', name: { en: id }, entry, ...(cost ? { cost } : {}) },
  terms: {
    quantity,
    day,
    agreements: [{ id: 'a', name: { en: 'Class' }, rate: '0.07' }],
    ...(hand ? { hand } : {}),
    ...(recurs && parts ? { term: { start: day, months: 18, days: 3 } } : {}),
  },
  ...(recurs && !parts
    ? { recurs: { every: { baseMonths: 12 }, term: { start: day, months: 12, days: 0 } } }
    : {}),
});

/** The view that the server would give of such lines. */
function viewOf(lines: readonly (QuoteLine & { optional?: boolean })[], whole: Typed | null): QuoteView {
  const {
    lines: priced,
    totals,
    whole: comes,
  } = priceQuote(lines, { decimals: 2, ...(whole ? { whole } : {}) });
  const views = lines.map((line, index): LineView => {
    const { price, problems } = priced[index] ?? { price: {}, problems: [] };
    const { quantity, hand, term, ...granted } = line.terms;
    const { offer, recurs } = line;
    return {
      id: line.id,
      position: index + 1,
      sku: line.sku,
      family: line.family,
      name: { en: line.id },
      partNumber: line.sku,
      quantity,
      unit: 'pc',
      hand: hand ?? null,
      locked: line.locked,
      optional: !line.counts,
      discountable: true,
      price,
      problems,
      warnings: [],
      special: [],
      alternative: false,
      alternativeSet: null,
      origin: line.id,
      pricedOn: day,
      group: null,
      covers: [],
      ...(offer.is === 'build'
        ? { build: { parts: [...offer.parts], list: '0', open: [], unpriced: [] } }
        : {}),
      ...(term ? { recurs: { baseMonths: 12, leastMonths: 0, term } } : {}),
      ...(recurs
        ? { recurs: { baseMonths: recurs.every.baseMonths, leastMonths: 0, term: recurs.term } }
        : {}),
      basis: {
        granted,
        ...(offer.is === 'item' && offer.entry ? { entry: offer.entry } : {}),
        ...(offer.cost === undefined ? {} : { cost: offer.cost }),
      },
    } as LineView;
  });
  return {
    lines: views,
    totals,
    whole: { typed: whole, comes },
    decimals: 2,
    may: { seeCosts: true },
  } as unknown as QuoteView;
}

const hand = fc.oneof(
  fc.record({ by: fc.constant('rate' as const), value: fc.constantFrom('0.05', '0.125', '0') }),
  fc.record({ by: fc.constant('net' as const), value: fc.constantFrom('80', '99.99') }),
  fc.record({ by: fc.constant('margin' as const), value: fc.constantFrom('0.3', '0.21') }),
);
const made = fc.record(
  {
    entry: fc.option(
      fc.constantFrom<PriceEntry>(
        unit('123.45'),
        { method: 'costPlus', markUp: '0.4' },
        { method: 'share', rate: '0.1', of: ['decks'] },
      ),
      { nil: undefined },
    ),
    parts: fc.option(fc.constant(['1000.10', '0.37']), { nil: undefined }),
    cost: fc.constantFrom('40', '61.5'),
    family: fc.constantFrom('yard', 'decks'),
    quantity: fc.oneof(fc.integer({ min: 1, max: 9 }), fc.constantFrom(12.5, 0.125)),
    hand: fc.option(hand, { nil: undefined }),
    recurs: fc.boolean(),
  },
  { requiredKeys: ['cost', 'family', 'quantity', 'recurs'] },
);

describe('a quote priced again in the page', () => {
  it('comes to what the server would say', () => {
    fc.assert(
      fc.property(
        fc.array(made, { minLength: 1, maxLength: 6 }),
        fc.array(
          fc.record({
            at: fc.nat(5),
            quantity: fc.option(fc.integer({ min: 1, max: 30 }), { nil: undefined }),
            hand: fc.option(hand, { nil: undefined }),
            locked: fc.boolean(),
            optional: fc.boolean(),
          }),
          { maxLength: 5 },
        ),
        fc.option(fc.record({ by: fc.constant('rate' as const), value: fc.constantFrom('0.03', '0.2') }), {
          nil: null,
        }),
        (lines, changes, whole) => {
          const before = lines.map((line, index) => kept(String(index), line as Made));
          const edits: LocalEdit[] = changes.map(({ at, quantity, hand: typed, locked, optional }) => ({
            of: 'line',
            line: String(at),
            locked,
            optional,
            ...(quantity === undefined ? {} : { quantity }),
            ...(typed === undefined ? {} : { hand: typed }),
          }));
          if (whole) edits.push({ of: 'quote', whole });
          const after = changes.reduce<QuoteLine[]>(
            (all, { at, quantity, hand: typed, locked, optional }) =>
              all.map((line, index) =>
                index === at
                  ? {
                      ...line,
                      locked,
                      counts: !optional,
                      terms: {
                        ...line.terms,
                        quantity: quantity ?? line.terms.quantity,
                        ...(typed === undefined ? {} : { hand: typed }),
                      },
                    }
                  : line,
              ),
            before,
          );
          const got = requoter()(viewOf(before, null), edits);
          const wanted = viewOf(after, whole);
          expect(got?.totals).toEqual(wanted.totals);
          expect(got?.whole).toEqual(wanted.whole);
          expect(got?.lines.map(({ price, problems }) => ({ price, problems }))).toEqual(
            wanted.lines.map(({ price, problems }) => ({ price, problems })),
          );
        },
      ),
    );
  });

  it('takes a price and a cost typed on a line as the server would', () => {
    const typed = kept('a', { entry: { method: 'hand' } });
    const view = viewOf([typed], null);
    const got = requoter()(view, [{ of: 'line', line: 'a', typedPrice: '250', typedCost: '100' }]);
    expect(got?.lines[0]).toMatchObject({
      typedCost: '100',
      problems: [],
      price: { unitList: '250', unitNet: '232.5', unitCost: '100', margin: '0.56989247311827956989' },
    });
    // Taken back, the item's own cost holds again.
    expect(
      requoter()(view, [{ of: 'line', line: 'a', typedPrice: '250', typedCost: null }])?.lines[0]?.price
        .unitCost,
    ).toBe(typed.offer.cost);
  });

  it('leaves lines that come out as they were the same objects, one edit after another', () => {
    const view = viewOf(
      ['a', 'b', 'c'].map((id) => kept(id, {})),
      null,
    );
    const price = requoter();
    const first = price(view, [{ of: 'line', line: 'b', quantity: 5 }]);
    expect(first?.lines.map((line, index) => line === view.lines[index])).toEqual([true, false, true]);
    const second = price(view, [
      { of: 'line', line: 'b', quantity: 5 },
      { of: 'line', line: 'c', locked: true },
    ]);
    expect(second?.lines[1]).toBe(first?.lines[1]);
    expect(price(view, [])?.lines).toEqual(view.lines);
  });

  it('waits for the server where it lacks a cost, or what a line is priced from', () => {
    const margin = viewOf([kept('a', {})], null);
    expect(requoter()(margin, [{ of: 'line', line: 'a', hand: { by: 'margin', value: '0.3' } }])).toBeNull();
    const [line] = margin.lines;
    const { basis: _basis, ...frozen } = line as LineView;
    expect(requoter()({ ...margin, lines: [frozen] }, [])).toBeNull();
  });

  it('takes tax along', () => {
    const view = viewOf([kept('a', {}), kept('b', {})], null);
    const lines = view.lines.map((line) => ({ ...line, taxRate: '0.2' }));
    const got = requoter()({ ...view, lines, tax: { net: '186', byRate: [], tax: '37.2', gross: '223.2' } }, [
      { of: 'line', line: 'a', quantity: 2 },
    ]);
    expect(got?.tax).toMatchObject({ net: '279', tax: '55.8', gross: '334.8' });
  });
});

it('a newer view keeps the lines that are as they were', () => {
  const before = viewOf(
    ['a', 'b'].map((id) => kept(id, {})),
    null,
  );
  const after = structuredClone(before);
  (after.lines[1] as LineView).quantity = 7;
  const shown = sameWhereEqual(before, after);
  expect(shown.lines[0]).toBe(before.lines[0]);
  expect(shown.lines[1]).toBe(after.lines[1]);
});
