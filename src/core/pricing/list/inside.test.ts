/**
 * What stands inside a build: priced by every method of a list, recurring apart from the rest, with services
 * at cost.
 */
import { describe, expect, it } from 'vitest';
import { demoModel, demoTariff } from '../../../../scripts/demo-documents';
import { createEngine, type Decision } from '../../engine';
import { exact, Exact } from '../../exact';
import { Reading } from '../../model';
import { making } from '../../production';
import {
  costOf,
  figuresOf,
  priceBuild,
  priceQuote,
  priceTerms,
  recurringIn,
  runningIn,
  sidesOf,
  tariffFrom,
  walk,
  type LineTerms,
  type PriceEntry,
  type QuoteLine,
  type Tariff,
} from '..';

type Decisions = Record<string, Decision['value']>;
const model = demoModel('ridgeback');
const listed = demoTariff('EUR');
const day = '2026-06-01';
const valuesOf = (decisions: Decisions) =>
  createEngine(model, { date: day, values: { region: 'eu' } }).state({
    decisions: Object.entries({ vehicle: 'articulated', length: 'm12', ...decisions }).map(([on, value]) => ({
      on,
      value,
    })),
  }).values;
const withDocket = {
  'terminals/beacon/1/interfaces.ethernet': true,
  docket: 'site',
  users: '5',
  startDate: '2026-07-01',
  term: '18',
};
const part = (price: ReturnType<typeof priceBuild>, id: string) => price.parts.find((each) => each.id === id);

/** The list with an item priced in another way. */
function priced(sku: string, entry: PriceEntry): Tariff {
  const { [sku]: _price, ...prices } = listed.prices;
  return { ...listed, prices, entries: { ...listed.entries, [sku]: entry } };
}

describe('an item inside a build', () => {
  // 20 m of cable in the usual build, a deck of 12 m by 3 m.
  const cases: [string, PriceEntry, string | undefined][] = [
    ['a unit price', { method: 'unit', price: '5.8' }, '116'],
    [
      'the bracket that holds its quantity',
      {
        method: 'bracket',
        brackets: [
          { from: '1', below: '20', price: '90' },
          { from: '20', below: '50', price: '104.5' },
        ],
      },
      '104.5',
    ],
    [
      'no bracket that holds it',
      { method: 'bracket', brackets: [{ from: '1', below: '20', price: '90' }] },
      undefined,
    ],
    [
      'slices',
      {
        method: 'graduated',
        slices: [
          { from: '0', below: '15', rate: '6' },
          { from: '15', rate: '4.5' },
        ],
      },
      '112.5',
    ],
    [
      'slices that end before it',
      { method: 'graduated', slices: [{ from: '0', below: '15', rate: '6' }] },
      undefined,
    ],
    [
      'usage above the least charge',
      { method: 'usage', slices: [{ from: '0', rate: '6' }], least: '100' },
      '120',
    ],
    ['usage below it', { method: 'usage', slices: [{ from: '0', rate: '6' }], least: '150' }, '150'],
    ['a formula over the build', { method: 'formula', formula: 'if area > 30 then 7.25 else 5' }, '145'],
    ['a formula over what the build does not have', { method: 'formula', formula: 'height * 2' }, undefined],
    ['a share of other items', { method: 'share', rate: '0.001', of: ['RB-DECK-P', 'RB-CELL-D'] }, '268.44'],
    ['a share of nothing that is there', { method: 'share', rate: '0.1', of: ['RB-PUMP'] }, undefined],
    ['no charge', { method: 'included' }, '0'],
    ['a price to type', { method: 'hand' }, undefined],
  ];
  it.each(cases)('by %s', (_name, entry, amount) => {
    const tariff = priced('RB-CABLE', entry);
    const price = priceBuild(model, valuesOf({}), tariff);
    expect(part(price, 'cable')?.amount).toBe(amount);
    expect(price.unpriced).toEqual(amount === undefined ? ['RB-CABLE'] : []);
    // What looks for the cheapest build reckons with the same.
    const reading = new Reading(model, valuesOf({}));
    const sum = priceTerms(model, tariff).reduce((all, { formula, weight }) => {
      const value = reading.run(formula);
      return value instanceof Exact ? all.plus(value.times(weight)) : all;
    }, exact(0));
    if (amount !== undefined || entry.method === 'hand') expect(sum.toString()).toBe(price.list);
  });
  it('waits while what its formula reads is open', () => {
    const { area: _area, ...rest } = valuesOf({ length: 'custom' });
    const price = priceBuild(model, rest, priced('RB-CABLE', { method: 'formula', formula: 'area / 10' }));
    expect(price.open).toContain('cable');
    expect(price.unpriced).toEqual([]);
  });
});

describe('a list', () => {
  const items = [
    { sku: 'A', family: 'yard', kind: 'part', cost: '40' },
    { sku: 'B', family: 'yard', kind: 'service', cost: '10' },
    { sku: 'C', family: 'software', kind: 'software' },
  ];
  it('becomes prices by the piece where it can, and names items for families', () => {
    const tariff = tariffFrom(
      { list: 'L', currency: 'EUR', decimals: 2 },
      [
        { sku: 'A', entry: { method: 'costPlus', markUp: '0.25' } },
        { sku: 'B', entry: { method: 'share', rate: '0.1', of: ['yard', 'Z'] } },
        { sku: 'C', entry: { method: 'unit', price: '9' }, every: { baseMonths: 12 } },
        { sku: 'A', entry: { method: 'unit', price: '45' }, inside: 'gate' },
      ],
      items,
    );
    expect(tariff).toMatchObject({
      prices: { A: '50', C: '9' },
      entries: { B: { of: ['A', 'B', 'Z'] } },
      recurs: { C: { baseMonths: 12 } },
      inside: { gate: { A: '45' } },
      asSold: ['B', 'C'],
      costs: { A: '40', B: '10' },
    });
    expect(
      tariffFrom(
        { list: 'L', currency: 'EUR', decimals: 2 },
        [{ sku: 'C', entry: { method: 'costPlus', markUp: '1' } }],
        items,
      ).prices,
    ).toEqual({});
  });
});

describe('what recurs inside a build', () => {
  const line = (decisions: Decisions, terms: Partial<LineTerms> = {}, tariff = listed) => {
    const price = priceBuild(model, valuesOf(decisions), tariff);
    return { price, line: walk(price.parts, { quantity: 1, day, ...terms }, 2) };
  };
  it('is for the term of its model, apart from what is due once', () => {
    const { price, line: walked } = line({ ...withDocket, response: 'h8', calibrations: '0' });
    // 780.00 + 5 x 96.00 + 1,080.00 = 2,340.00 for 12 months, so 3,510.00 for 18.
    const [subscription, ...more] = walked.subscriptions ?? [];
    expect(subscription).toMatchObject({
      unitNet: '2340',
      net: '3510',
      recurring: {
        baseMonths: 12,
        from: '2026-07-01',
        to: '2027-12-31',
        months: 18,
        perMonth: '195',
        firstYear: '2340',
      },
    });
    expect(more).toEqual([]);
    expect(exact(walked.net).minus(walked.unitNet).toString()).toBe('3510');
    expect(walked.list).toBe(price.list);
    expect(part(price, 'docket.site')).toMatchObject({
      amount: '780',
      recurs: { baseMonths: 12, leastMonths: 6, start: '2026-07-01', months: 18 },
    });
  });
  it('is walked on the same terms, for each piece, but for money typed for one', () => {
    const rated = line(withDocket, {
      quantity: 3,
      agreements: [{ id: 'a', name: { en: 'Class' }, rate: '0.05' }],
      hand: { by: 'rate', value: '0.1' },
    }).line;
    // 1,260.00 x 0.95 x 0.9 = 1,077.30, three times, for 18 months.
    expect(rated.subscriptions?.[0]).toMatchObject({ unitNet: '1077.3', net: '4847.85' });
    const typed = line(withDocket, { hand: { by: 'net', value: '15000' } }).line;
    expect([typed.unitNet, typed.subscriptions?.[0]?.net, typed.net]).toEqual(['15000', '1890', '16890']);
  });
  it('has a walk for each period that its prices are for', () => {
    const { line: walked } = line({ ...withDocket, tickets: '7400' });
    // Tickets by usage: 648.00 a month.
    expect(walked.subscriptions?.map(({ net, recurring }) => [recurring?.baseMonths, net])).toEqual([
      [12, '1890'],
      [1, '11664'],
    ]);
    expect(runningIn(walked)).toEqual([
      { from: '2026-07-01', to: '2027-12-31', months: 18, net: '13554', perMonth: '753' },
    ]);
    expect(recurringIn(walked)).toHaveLength(2);
  });
  it('takes its part of the whole-quote discount, to the minor unit', () => {
    const { price } = line({ ...withDocket, tickets: '7400' });
    const quoted: QuoteLine = {
      id: 'a',
      sku: 'RIDGEBACK',
      family: 'weighbridges',
      counts: true,
      locked: false,
      discountable: true,
      offer: { is: 'build', parts: price.parts, unpriced: [] },
      terms: { quantity: 1, day },
    };
    const { lines, totals } = priceQuote([quoted], { decimals: 2, whole: { by: 'amount', value: '1000' } });
    const sides = sidesOf(lines[0]?.price as Parameters<typeof sidesOf>[0]);
    expect(
      sides
        .map(({ share = '0' }) => share)
        .reduce((all, each) => all.plus(each), exact(0))
        .toString(),
    ).toBe('1000');
    expect(totals.recurring).toBe(
      exact(sides[1]?.net ?? 0)
        .plus(sides[2]?.net ?? 0)
        .toString(),
    );
    expect(exact(totals.oneTime).plus(totals.recurring).toString()).toBe(totals.net);
    expect(figuresOf('a', 'weighbridges', lines[0]?.price as Parameters<typeof figuresOf>[2]).discount).toBe(
      exact('1000').div(exact(totals.net).plus(1000)).toFixed(18),
    );
  });
  it('lies exactly at a limit where all of it was given the same', () => {
    for (const value of ['0.1', '0.05', '0.333'])
      expect(
        figuresOf(
          'a',
          'weighbridges',
          line({ ...withDocket, tickets: '7400' }, { quantity: 7, hand: { by: 'rate', value } }).line,
        ).discount,
      ).toBe(value);
  });
  it('runs as the line says where the model says no term, and not shorter than it is sold', () => {
    const parts = [
      {
        id: 'app',
        kind: 'part' as const,
        name: { en: 'App' },
        amount: '240',
        recurs: { baseMonths: 12, leastMonths: 6 },
      },
    ];
    const quoted = (months: number): QuoteLine => ({
      id: 'a',
      sku: 'S',
      family: 'software',
      counts: true,
      locked: false,
      discountable: true,
      offer: { is: 'build', parts, unpriced: [] },
      terms: { quantity: 1, day, term: { start: day, months, days: 0 } },
    });
    expect([6, 18].map((months) => priceQuote([quoted(months)], { decimals: 2 }).totals.net)).toEqual([
      '120',
      '360',
    ]);
    expect(priceQuote([quoted(5)], { decimals: 2 }).lines[0]?.problems).toEqual([
      { code: 'line.tooShort', params: { months: 6 } },
    ]);
    expect(walk(parts, { quantity: 1, day }, 2).subscriptions?.[0]?.recurring).toMatchObject({
      from: day,
      months: 12,
    });
  });
  it('costs what it does for the period, and services what they do once', () => {
    const rates = { SAW: '52', WELD: '61', COAT: '48', ELEC: '57', TEST: '66', PACK: '41' };
    const values = valuesOf({ ...withDocket, calibrations: '2' });
    const made = making(model, values);
    const price = priceBuild(model, values, listed);
    const costs = Object.fromEntries([
      ...made.materials.map(({ item }) => [item, '1']),
      ...(listed.asSold ?? []).map((sku) => [sku, '10']),
    ]) as Record<string, string>;
    const cost = costOf(made, price.parts, { ...listed, costs, rates });
    const alone = costOf(made, [], { ...listed, costs, rates });
    // Verification, network, commissioning, two visits and the warranty at 10 each; a licence and five users
    // for 12 months.
    const services = price.parts
      .filter((each) => !each.recurs && each.item && listed.asSold?.includes(each.item))
      .reduce((sum, each) => sum + 10 * Number(each.quantity), 0);
    expect(services).toBeGreaterThan(40);
    expect(
      exact(cost?.unit ?? 0)
        .minus(alone?.unit ?? 0)
        .toString(),
    ).toBe(String(services));
    expect(Object.values(cost?.recurring ?? {})).toEqual([{ unit: '60', once: '0' }]);
    const { 'DK-USER': _user, ...without } = costs;
    expect(costOf(made, price.parts, { ...listed, costs: without, rates })).toBeUndefined();
  });
});

describe('rates agreed on a line', () => {
  const usage: PriceEntry = {
    method: 'usage',
    slices: [
      { from: '0', below: '1000', rate: '0.12' },
      { from: '1000', rate: '0.09' },
    ],
    least: '45',
  };
  const priceWith = (rates: { each: string[]; least?: string } | undefined, quantity = 2000) =>
    priceQuote(
      [
        {
          id: 'a',
          sku: 'DK',
          family: 'software',
          counts: true,
          locked: false,
          discountable: true,
          terms: { quantity, day },
          offer: { is: 'item', name: { en: 'Tickets' }, entry: usage, ...(rates ? { rates } : {}) },
        },
      ],
      { decimals: 2 },
    ).lines[0]?.price as Parameters<typeof figuresOf>[2];
  it('are a step of the walk, and count as given away', () => {
    // 210.00 by the list; 0.10 and 0.08 make 180.00.
    const price = priceWith({ each: ['0.10', '0.08'], least: '45' });
    expect([price.list, price.net]).toEqual(['210', '180']);
    expect(price.steps).toMatchObject([
      { kind: 'list', total: '210' },
      { kind: 'rates', amount: '-30', total: '180' },
    ]);
    expect(Number(figuresOf('a', 'software', price).discount)).toBeCloseTo(30 / 210, 12);
    expect(price.tiers?.map(({ rate }) => rate)).toEqual(['0.10', '0.08']);
  });
  it('count against nobody where they are the list’s, or above', () => {
    expect(priceWith({ each: ['0.12', '0.09'], least: '45' }).steps).toHaveLength(1);
    expect(Number(figuresOf('a', 'software', priceWith({ each: ['0.2', '0.2'] })).discount)).toBeLessThan(0);
    expect(figuresOf('a', 'software', priceWith(undefined)).discount).toBe('0');
  });
  it('replace the least charge as well', () => {
    expect(priceWith({ each: ['0.12', '0.09'] }, 100)).toMatchObject({ list: '45', net: '12' });
    expect(priceWith({ each: ['0.12', '0.09'], least: '30' }, 100)).toMatchObject({ net: '30', least: '30' });
  });
});
