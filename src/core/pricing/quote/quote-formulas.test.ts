import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  needsOf,
  policiesHit,
  policyNames,
  priceNames,
  priceQuote,
  problemsOver,
  type FactsOf,
  type PriceEntry,
  type QuoteLine,
} from '..';

const day = '2026-11-26';
const line = (id: string, entry: PriceEntry, more: Partial<QuoteLine> = {}): QuoteLine => ({
  id,
  sku: id,
  family: 'yard',
  counts: true,
  locked: false,
  discountable: true,
  offer: { is: 'item', name: {}, entry },
  terms: { quantity: 1, day },
  ...more,
});
const unit = (price: string): PriceEntry => ({ method: 'unit', price });
const freight: PriceEntry = { method: 'formula', formula: 'max(180, 0.09 * mass)' };
const facts = (more: Partial<FactsOf<typeof policyNames>> = {}): FactsOf<typeof policyNames> => ({
  net: '1000',
  discount: '0',
  margin: '0.4',
  paymentDays: '30',
  specialParts: '0',
  passedWarnings: '0',
  months: '0',
  lines: '1',
  customerClass: 'direct',
  country: 'GB',
  leased: false,
  ...more,
});

describe('a price by a formula over the quote', () => {
  const nets = (...lines: QuoteLine[]) =>
    priceQuote(lines, { decimals: 2 }).lines.map(({ price, problems }) => problems[0]?.code ?? price.net);
  it('reads the mass of what counts, its quantity with it', () => {
    const deck = line('deck', unit('5000'), { mass: '1250.5', terms: { quantity: 3, day } });
    expect(nets(deck, line('freight', freight))).toEqual(['15000', '337.64']);
    expect(nets({ ...deck, counts: false }, line('freight', freight))).toEqual(['15000', '180']);
    expect(nets(line('plain', unit('5000')), line('freight', freight))).toEqual(['5000', '180']);
  });
  it('reads the net of what is priced by itself, never of a share or another formula', () => {
    const share = line('share', { method: 'share', rate: '0.1', of: ['yard'] }, { family: 'services' });
    const premium = line(
      'premium',
      { method: 'formula', formula: 'net * 0.02 + quantity' },
      { terms: { quantity: 2, day } },
    );
    expect(nets(premium, share, line('a', unit('1000')), line('b', unit('500')))).toEqual([
      '64',
      '150',
      '1000',
      '500',
    ]);
  });
  it('is the same whatever the order of lines, and says so where it has none', () => {
    const deck = line('deck', unit('5000'), { mass: '4000' });
    expect(nets(line('freight', freight), deck)[0]).toBe(nets(deck, line('freight', freight))[1]);
    expect(nets(line('broken', { method: 'formula', formula: 'mass / 0' }), deck)[0]).toBe('line.wantsValue');
    expect(nets(line('broken', { method: 'formula', formula: 'weight * 2' }), deck)[0]).toBe(
      'line.wantsValue',
    );
  });
  it('is checked before it is used', () => {
    expect(problemsOver('max(180, 0.09 * mass)', priceNames, 'number')).toEqual([]);
    expect(problemsOver('weight * 2', priceNames, 'number').map(({ code }) => code)).toEqual([
      'formula.unknownName',
    ]);
    expect(problemsOver('mass > 3', priceNames, 'number').map(({ code }) => code)).toEqual([
      'formula.resultType',
    ]);
  });
});

describe('policies over the quote', () => {
  const late = { id: 'late', when: 'paymentDays > 60', signs: 'manager' };
  const thin = { id: 'thin', when: 'net > 250000 and margin < 0.35', signs: 'director' };
  it.each<[object, string[]]>([
    [{}, []],
    [{ paymentDays: '61' }, ['late']],
    [{ net: '250000.01', margin: '0.349' }, ['thin']],
    [{ net: '300000', margin: null }, []],
    [{ net: '300000', margin: '0.1', paymentDays: '90' }, ['late', 'thin']],
  ])('%j runs into %j', (more, hit) => {
    expect(policiesHit([late, thin], facts(more)).map(({ id }) => id)).toEqual(hit);
  });
  it('tells what was read, so that a sign-off holds as long as that is the same', () => {
    const [hit] = policiesHit([late], facts({ paymentDays: '90', net: '1' }));
    expect(hit?.read).toBe('paymentDays=90');
    const signed = [{ role: 'manager', figures: [], policies: hit ? [hit] : [] }];
    const held = (days: string) =>
      needsOf([], signed, policiesHit([late], facts({ paymentDays: days }))).map((need) => need.held);
    expect(held('90')).toEqual([true]);
    expect(held('120')).toEqual([false]);
    // Shorter than was signed is no worse.
    expect(held('75')).toEqual([true]);
    expect(held('30')).toEqual([]);
    expect(
      needsOf([], [{ role: 'director', figures: [] }], policiesHit([late], facts({ paymentDays: '90' }))).map(
        (need) => need.held,
      ),
    ).toEqual([false]);
  });
  it.each<[string, object, object, boolean]>([
    ['a better margin', { net: '300000', margin: '0.33' }, { net: '300000', margin: '0.34' }, true],
    ['a worse margin', { net: '300000', margin: '0.33' }, { net: '300000', margin: '0.32' }, false],
    [
      'a smaller deal at a better margin',
      { net: '300000', margin: '0.33' },
      { net: '290000', margin: '0.34' },
      true,
    ],
    [
      'a larger deal at the same margin',
      { net: '300000', margin: '0.33' },
      { net: '310000', margin: '0.33' },
      false,
    ],
    ['the same', { net: '300000', margin: '0.33' }, { net: '300000', margin: '0.33' }, true],
  ])('signed hold while nothing gets worse: %s', (_, then, now, held) => {
    expect(
      needsOf(
        [],
        [{ role: 'director', figures: [], policies: policiesHit([thin], facts(then)) }],
        policiesHit([thin], facts(now)),
      ).map((need) => need.held),
    ).toEqual([held]);
  });
  it('that have no worse way must find what was signed', () => {
    const abroad = { id: 'abroad', when: 'country = "US" and lines in [2, 4]', signs: 'manager' };
    const held = (lines: string) =>
      needsOf(
        [],
        [
          {
            role: 'manager',
            figures: [],
            policies: policiesHit([abroad], facts({ country: 'US', lines: '2' })),
          },
        ],
        policiesHit([abroad], facts({ country: 'US', lines })),
      ).map((need) => need.held);
    expect([held('2'), held('4')]).toEqual([[true], [false]]);
  });
  it('that cannot be read are for a person to look at', () => {
    expect(
      policiesHit([{ id: 'x', when: 'paymentDay > 60', signs: 'manager' }], facts()).map(({ id }) => id),
    ).toEqual(['x']);
  });
  it('of the demo, and its formulas, can be read', () => {
    const read = <T>(file: string) => JSON.parse(readFileSync(`demo/${file}.json`, 'utf8')) as T;
    for (const { condition } of read<{ condition: string }[]>('policies'))
      expect(problemsOver(condition, policyNames, 'yesno')).toEqual([]);
    const formulas = read<{ entries: Record<string, { formula?: string } | string> }[]>(
      'price-lists',
    ).flatMap(({ entries }) =>
      Object.values(entries).flatMap((entry) =>
        typeof entry === 'object' && entry.formula ? [entry.formula] : [],
      ),
    );
    expect(formulas.length).toBeGreaterThan(0);
    for (const formula of formulas) expect(problemsOver(formula, priceNames, 'number')).toEqual([]);
  });
});
