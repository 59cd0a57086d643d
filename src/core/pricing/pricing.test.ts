import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { createEngine } from '../engine';
import { demoModel, demoTariff } from '../../../scripts/demo-documents';
import type { DecisionValue } from '../model';
import { making } from '../production';
import { costOf, priceBuild, sumLines, walk, type LineTerms, type Tariff, type PricedPart } from './index';

const part = (amount: string, kind: PricedPart['kind'] = 'part'): PricedPart => ({
  id: kind,
  kind,
  name: { en: kind },
  amount,
});
const terms = (quantity: number, discount = '0', agreement?: string): LineTerms => ({
  quantity,
  day: '2026-06-01',
  hand: { by: 'rate', value: discount },
  ...(agreement ? { agreements: [{ id: 'key', name: { en: 'Key accounts' }, rate: agreement }] } : {}),
});

describe('the price walk', () => {
  it('goes from list over surcharge, agreement and discount to net, each on what is left', () => {
    const line = walk([part('10000'), part('600', 'surcharge')], terms(2, '0.05', '0.08'), 2, {
      unit: '6000',
      once: '0',
    });
    expect(line.steps.map(({ kind, amount, total }) => [kind, amount, total])).toEqual([
      ['list', '10000', '10000'],
      ['surcharge', '600', '10600'],
      ['agreement', '-848', '9752'],
      ['discount', '-487.6', '9264.4'],
    ]);
    expect(line).toMatchObject({
      unitList: '10600',
      unitNet: '9264.4',
      list: '21200',
      net: '18528.8',
      cost: '12000',
    });
    // (18,528.80 - 12,000) / 18,528.80
    expect(line.margin?.slice(0, 8)).toBe('0.352359');
  });

  it.each([
    ['0.125', 2, '0.13'],
    ['0.135', 2, '0.14'],
    ['0.005', 2, '0.01'],
    ['1234.5', 0, '1235'],
    ['1.2345', 3, '1.235'],
    ['2.675', 2, '2.68'],
  ])('rounds a unit net of %s to %i digits half up: %s', (amount, decimals, expected) => {
    const line = walk([part(amount)], terms(1), decimals);
    expect(line.unitNet).toBe(expected);
    expect(line.steps.at(-1)).toMatchObject({ kind: 'rounding', total: expected });
  });

  it('rounds the unit price first and multiplies then', () => {
    expect(walk([part('0.335')], terms(1000), 2).net).toBe('340');
  });

  it('gives no margin on nothing, and a whole discount gives it away', () => {
    const line = walk([part('500')], terms(3, '1'), 2, { unit: '200', once: '0' });
    expect(line).toMatchObject({ net: '0', cost: '600' });
    expect(line.margin).toBeUndefined();
  });

  it('has steps that sum to the unit net exactly, whatever the rates', () => {
    const money = fc.integer({ min: 1, max: 50_000_000 }).map((cents) => (cents / 100).toFixed(2));
    const rate = fc.integer({ min: 0, max: 10_000 }).map((basis) => (basis / 10_000).toFixed(4));
    fc.assert(
      fc.property(
        money,
        rate,
        rate,
        fc.integer({ min: 1, max: 99_999 }),
        fc.constantFrom(0, 2, 3),
        (amount, discount, agreement, quantity, decimals) => {
          const line = walk([part(amount)], terms(quantity, discount, agreement), decimals);
          const cents = (value: string) => BigInt(Math.round(Number(value) * 10 ** decimals));
          expect(line.steps.at(-1)?.total).toBe(line.unitNet);
          expect((line.unitNet.split('.')[1] ?? '').length).toBeLessThanOrEqual(decimals);
          expect(BigInt(Math.round(Number(line.net) * 10 ** decimals))).toBe(
            cents(line.unitNet) * BigInt(quantity),
          );
        },
      ),
    );
  });
});

describe('what is not counted with each piece', () => {
  it('is on the line once, on the same terms', () => {
    const once: PricedPart = { ...part('40'), counts: 'line' };
    const price = walk([part('100'), once], terms(3, '0.1'), 2, { unit: '50', once: '0' });
    // 3 x 90.00 and 36.00 once; (306 - 150) / 306
    expect(price).toMatchObject({
      unitNet: '90',
      list: '340',
      net: '306',
      once: { list: '40', net: '36' },
      cost: '150',
    });
    expect(Number(price.margin)).toBeCloseTo(156 / 306, 12);
    expect(walk([part('100')], terms(3), 2).once).toBeUndefined();
    // Three at 50, and 12 once.
    expect(walk([part('100'), once], terms(3), 2, { unit: '50', once: '12' }).cost).toBe('162');
  });

  it('is counted for every so many pieces, begun ones too, at list and at cost', () => {
    const rack: PricedPart = { ...part('40'), counts: { every: 4 } };
    const line = (pieces: number) =>
      walk([part('100'), rack], terms(pieces, '0.1'), 2, { unit: '50', once: '2', every: { '4': '10' } });
    expect([1, 4, 5, 8, 9].map((pieces) => line(pieces).once)).toEqual([
      { list: '40', net: '36', cost: '12' },
      { list: '40', net: '36', cost: '12' },
      { list: '80', net: '72', cost: '22' },
      { list: '80', net: '72', cost: '22' },
      { list: '120', net: '108', cost: '32' },
    ]);
    // 5 x 90.00 and two racks at 36.00; 5 x 50 and two at 10, and 2 once.
    expect(line(5)).toMatchObject({ list: '580', net: '522', cost: '272' });
  });

  it('comes to what counting by hand comes to', () => {
    const counting = fc.constantFrom(
      undefined,
      'line' as const,
      'typed' as const,
      { every: 2 },
      { every: 7 },
    );
    const given = fc.array(fc.tuple(fc.integer({ min: 0, max: 9_999 }), counting), { maxLength: 6 });
    fc.assert(
      fc.property(given, fc.integer({ min: 1, max: 30 }), (parts, pieces) => {
        const priced = parts.map(([amount, counts]): PricedPart => ({
          ...part(String(amount)),
          ...(counts ? { counts } : {}),
        }));
        const all = parts.reduce((sum, [amount, counts]) => {
          if (counts === undefined) return sum + amount * pieces;
          if (typeof counts === 'string') return sum + amount;
          let racks = 0;
          for (let held = 0; held < pieces; held += counts.every) racks++;
          return sum + amount * racks;
        }, 0);
        expect(Number(walk(priced, terms(pieces), 2).list)).toBe(all);
      }),
    );
  });
});

describe('totals', () => {
  it('are sums of rounded lines', () => {
    const lines = [
      walk([part('1033.333')], terms(3), 2, { unit: '400', once: '0' }),
      walk([part('0.005')], terms(1), 2, { unit: '0', once: '0' }),
    ];
    expect(sumLines(lines, 2)).toMatchObject({ list: '3100', net: '3100', reduction: '0', cost: '1200' });
  });

  it('tell no cost where one line has none', () => {
    expect(
      sumLines(
        [walk([part('10')], terms(1), 2, { unit: '4', once: '0' }), walk([part('10')], terms(1), 2)],
        2,
      ).cost,
    ).toBeUndefined();
  });
});

describe('a build of the demo', () => {
  const read = (name: string): unknown =>
    JSON.parse(readFileSync(new URL(`../../../demo/${name}`, import.meta.url), 'utf8'));
  const model = demoModel('ridgeback');
  const items = read('items.json') as { sku: string; cost: string }[];
  const tariff: Tariff = {
    ...demoTariff('EUR'),
    costs: Object.fromEntries(items.map((item) => [item.sku, item.cost])),
    rates: { SAW: '52', WELD: '61', COAT: '48', ELEC: '57', TEST: '66', PACK: '41' },
  };
  const values = (decisions: Record<string, DecisionValue>) =>
    createEngine(model, { date: '2026-06-01', values: { region: 'eu' } }).state({
      decisions: Object.entries(decisions).map(([on, value]) => ({ on, value })),
    }).values;

  it('lists part by part', () => {
    const price = priceBuild(model, values({ vehicle: 'articulated', length: 'm12' }), tariff);
    expect(Object.fromEntries(price.parts.map((each) => [each.id, each.amount]))).toEqual({
      deckPlate: '11232', // 36 m2 x 312.00
      cellsDigital: '2190', // 6 x 365.00
      cable: '116', // 20 m x 5.80
      calibrationVisits: '640.00',
      'warranty.standard': '0',
      'capacity.c60': '2580', // 2 modules x 1,290.00
      'approval.oiml': '980',
      'junctionBox.hub': '420',
      'terminals/beacon/1/housing.desk': '980',
      'terminals/beacon/1/alibi': '190', // a scale approved for trade
      commissioning: '890',
    });
    expect(price).toMatchObject({ list: '20218', open: [], unpriced: [] });
  });

  it('adds 6 % of the deck for each custom size', () => {
    const price = priceBuild(
      model,
      values({
        vehicle: 'articulated',
        length: 'custom',
        customLength: '12',
        width: 'custom',
        customWidth: '3',
      }),
      tariff,
    );
    expect(price.parts.filter((each) => each.kind === 'surcharge').map((each) => each.amount)).toEqual([
      '673.92',
      '673.92',
    ]);
  });

  it('prices what is settled and names what is open', () => {
    const price = priceBuild(model, values({}), tariff);
    expect(price.open).toEqual(expect.arrayContaining(['deckPlate', 'cellsDigital', 'capacity']));
    expect(Number(price.list)).toBeGreaterThan(0);
  });

  it('says which items the list does not have', () => {
    const { 'RB-HUB': _hub, ...prices } = tariff.prices;
    expect(
      priceBuild(model, values({ vehicle: 'articulated', length: 'm12' }), { ...tariff, prices }).unpriced,
    ).toEqual(['RB-HUB']);
  });

  it('costs material and time, and tells nothing without costs', () => {
    const settled = values({ vehicle: 'articulated', length: 'm12' });
    const cost = costOf(making(model, settled), [], tariff);
    expect(Number(cost?.unit)).toBeGreaterThan(5000);
    expect(cost?.once).toBe('0');
    const { costs: _costs, ...open } = tariff;
    expect(costOf(making(model, settled), [], open)).toBeUndefined();
  });
});
