/** Price changes: formulas in words and figures against integers of thousandths, and what is wrong with an entry. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyFormula,
  cellsOfEntry,
  entryProblems,
  entryWarnings,
  figuresOf,
  formulaProblem,
  leadingPrice,
  readEntryCells,
  readFormula,
  sheetColumns,
  sheetReader,
  triedAt,
  withFigures,
  writeFormula,
  type ChangeFormula,
  type PriceStep,
  type SheetColumn,
} from '.';
import type { PriceEntry } from '../pricing';

const lists = [
  { code: 'EUR-2026', currency: 'EUR' },
  { code: 'GBP-2026', currency: 'GBP' },
  { code: 'USD-2026', currency: 'USD' },
  { code: 'USD-WEST', currency: 'USD' },
];
const read = (typed: string, language = 'en'): ChangeFormula | string => {
  const answer = readFormula(typed, language, lists);
  return answer.ok ? answer.formula : `${answer.part}@${String(answer.at)}`;
};
const unit = (price: string): PriceEntry => ({ method: 'unit', price });
const made = (typed: string, entry: PriceEntry | undefined, cost?: string, decimals = 2): unknown => {
  const answer = applyFormula(read(typed) as ChangeFormula, entry, {
    decimals,
    cost,
    entryIn: (list) => (list === 'EUR-2026' ? unit('200') : undefined),
  });
  return answer.ok ? (answer.entry.method === 'unit' ? answer.entry.price : answer.entry) : answer.why;
};

const amount = (most: number, decimals: number) =>
  fc.integer({ min: 0, max: most * 10 ** decimals }).map((units) => {
    const text = (units / 10 ** decimals).toFixed(decimals).replace(/(\.\d*?)0+$/, '$1');
    return text.replace(/\.$/, '');
  });
const some = (most: number, decimals: number) => amount(most, decimals).filter((text) => Number(text) > 0);
const signed = (text: fc.Arbitrary<string>) =>
  fc.tuple(text, fc.boolean()).map(([each, less]) => (less && each !== '0' ? `-${each}` : each));
const step: fc.Arbitrary<PriceStep> = fc.oneof(
  fc.record({ does: fc.constant('share' as const), by: signed(amount(1, 5)) }),
  fc.record({ does: fc.constant('add' as const), amount: signed(amount(900, 2)) }),
  fc.record({ does: fc.constant('times' as const), factor: some(3, 4) }),
  fc.record({ does: fc.constant('cost' as const), factor: some(4, 3) }),
  fc.record({ does: fc.constant('margin' as const), rate: amount(0.9, 3), atLeast: fc.boolean() }),
  fc.record({ does: fc.constantFrom('least' as const, 'most' as const), amount: amount(5000, 2) }),
  fc.record({
    does: fc.constant('round' as const),
    to: some(100, 2),
    how: fc.constantFrom('near' as const, 'up' as const, 'down' as const),
  }),
);
const formula: fc.Arbitrary<ChangeFormula> = fc
  .tuple(
    fc.option(
      fc.record({ does: fc.constant('list' as const), list: fc.constant('GBP-2026'), factor: some(2, 4) }),
    ),
    fc.array(step, { minLength: 1, maxLength: 5 }),
  )
  .map(([first, rest]) => (first ? [first, ...rest] : rest));

describe('a formula in words', () => {
  it('is read as it is written, in both languages', () => {
    fc.assert(
      fc.property(formula, fc.constantFrom('en', 'de'), (given, language) => {
        expect(read(writeFormula(given, language), language)).toEqual(given);
      }),
    );
  });

  it.each([
    [
      '+3.5 %, to the next 0.50',
      'en',
      [
        { does: 'share', by: '0.035' },
        { does: 'round', to: '0.5', how: 'up' },
      ],
    ],
    [
      '+3,5 %, auf die nächsten 0,50',
      'de',
      [
        { does: 'share', by: '0.035' },
        { does: 'round', to: '0.5', how: 'up' },
      ],
    ],
    ['margin at least 38 %', 'en', [{ does: 'margin', rate: '0.38', atLeast: true }]],
    ['Marge 38%', 'de', [{ does: 'margin', rate: '0.38', atLeast: false }]],
    [
      'EUR x 0.86, to 1.00',
      'en',
      [
        { does: 'list', list: 'EUR-2026', factor: '0.86' },
        { does: 'round', to: '1', how: 'near' },
      ],
    ],
    [
      'eur × 0,86; auf 1',
      'de',
      [
        { does: 'list', list: 'EUR-2026', factor: '0.86' },
        { does: 'round', to: '1', how: 'near' },
      ],
    ],
    [
      'Cost * 1.6\n-1,200',
      'en',
      [
        { does: 'cost', factor: '1.6' },
        { does: 'add', amount: '-1200' },
      ],
    ],
  ])('says %s', (typed, language, expected) => {
    expect(read(typed, language)).toEqual(expected);
  });

  it('says which part is not understood, and where', () => {
    expect(read('+3 %, up a bit')).toBe('up a bit@6');
    // Two lists have that currency, and 1.250 could be two numbers.
    expect(read('USD x 1.1')).toBe('USD x 1.1@0');
    expect(read('+1,250', 'de')).toBe('+1,250@0');
    expect(read('x 1,035', 'de')).toEqual([{ does: 'times', factor: '1.035' }]);
    expect(read('to 1.250')).toBe('to 1.250@0');
    expect(read('')).toEqual([]);
  });

  it('is told what is wrong with it as a whole', () => {
    const wrong = (typed: string) => formulaProblem(read(typed) as ChangeFormula);
    expect([wrong(''), wrong('+1 %, EUR x 2'), wrong('margin 100 %'), wrong('to 0'), wrong('+1 %')]).toEqual([
      'empty',
      'listNotFirst',
      'margin',
      'toNothing',
      null,
    ]);
  });
});

describe('a formula in figures', () => {
  it('comes to what whole numbers come to', () => {
    // All in hundredths of a cent; the oracle knows nothing of decimals.
    fc.assert(
      fc.property(
        fc.bigInt(1n, 10_000_000n),
        fc.bigInt(-400n, 900n),
        fc.constantFrom(1n, 5n, 10n, 50n, 100n, 500n),
        fc.constantFrom('near' as const, 'up' as const, 'down' as const),
        (cents, permille, to, how) => {
          const raised = cents * (1000n + permille);
          const [whole, rest] = [raised / (to * 1000n), raised % (to * 1000n)];
          const up = how === 'up' ? rest > 0n : how === 'near' && rest * 2n >= to * 1000n;
          const expected = (whole + (up ? 1n : 0n)) * to;
          const text = (units: bigint): string =>
            `${String(units / 100n)}.${String(units % 100n).padStart(2, '0')}`;
          const answer = applyFormula(
            [
              { does: 'share', by: (Number(permille) / 1000).toString() },
              { does: 'round', to: text(to), how },
            ],
            unit(text(cents)),
            { decimals: 2 },
          );
          expect(answer.ok && answer.entry.method === 'unit' && Number(answer.entry.price).toFixed(2)).toBe(
            text(expected),
          );
        },
      ),
    );
  });

  it.each([
    ['+3.5 %', '100', undefined, '103.5'],
    ['+3.5 %, to the next 0.50', '101', undefined, '105'],
    ['-10 %, down to 5', '99', undefined, '85'],
    ['margin 38 %', '10', '62', '100'],
    ['margin at least 38 %', '120', '62', '120'],
    ['margin at least 38 %', '90', '62', '100'],
    ['cost x 1.5, at least 20', '1', '12', '20'],
    ['at most 80', '99.9', undefined, '80'],
    ['EUR x 0.86, to 1.00', '1', undefined, '172'],
    ['margin 33 %', '1', '10', '14.93'],
  ])('%s of %s at cost %s is %s', (typed, price, cost, expected) => {
    expect(made(typed, unit(price), cost)).toBe(expected);
  });

  it('makes a first price from cost or another list, and says what is missing', () => {
    expect(made('EUR x 2', undefined)).toBe('400');
    expect(made('cost x 2', undefined, '7')).toBe('14');
    expect(made('+1 %', undefined)).toBe('noPrice');
    expect(made('cost x 2', unit('1'))).toBe('noCost');
    expect(made('GBP x 2', unit('1'))).toBe('noOther');
    expect(made('-3', unit('1'))).toBe('negative');
    expect(made('+1 %', { method: 'hand' })).toBe('method');
    expect(made('+1 %', unit('999'), undefined, 0)).toBe('1009');
  });

  it('raises every tier of an entry and leaves its borders', () => {
    const brackets: PriceEntry = {
      method: 'bracket',
      brackets: [
        { from: '1', below: '5', price: '900' },
        { from: '5', price: '1500' },
      ],
    };
    expect(made('+10 %', brackets)).toEqual({
      method: 'bracket',
      brackets: [
        { from: '1', below: '5', price: '990' },
        { from: '5', price: '1650' },
      ],
    });
    expect(made('margin 30 %', brackets, '100')).toBe('perTier');
    const usage: PriceEntry = {
      method: 'usage',
      slices: [
        { from: '0', below: '1000', rate: '0.12' },
        { from: '1000', rate: '0.0725' },
      ],
      least: '45',
    };
    expect(made('+1 %', usage)).toMatchObject({
      slices: [{ rate: '0.1212' }, { rate: '0.073225' }],
      least: '45.45',
    });
    expect(made('margin 50 %', usage, '0.03')).toMatchObject({
      slices: [{ rate: '0.06' }, { rate: '0.06' }],
      least: '45',
    });
  });

  it('raises a mark-up on cost as the price that it makes', () => {
    const costPlus: PriceEntry = { method: 'costPlus', markUp: '0.5' };
    expect(made('+10 %', costPlus)).toEqual({ method: 'costPlus', markUp: '0.65' });
    expect(made('margin at least 50 %', costPlus)).toEqual({ method: 'costPlus', markUp: '1' });
    expect(made('to 5', costPlus)).toBe('method');
  });

  it('gives figures back as they were taken', () => {
    const entries: PriceEntry[] = [
      unit('1'),
      { method: 'usage', slices: [{ from: '0', rate: '2' }], least: '3' },
      { method: 'graduated', slices: [{ from: '0', rate: '2' }] },
      { method: 'included' },
    ];
    for (const entry of entries)
      expect(
        withFigures(
          entry,
          (figuresOf(entry) ?? []).map(({ value }) => value),
        ),
      ).toEqual(entry);
  });
});

describe('an entry', () => {
  const problems = (entry: PriceEntry, more: { decimals?: number; inside?: boolean } = {}) =>
    entryProblems(entry, undefined, {
      sku: 'A',
      decimals: 2,
      inside: false,
      known: (name) => ['B', 'floor'].includes(name),
      reads: (text) => text !== '1 +',
      ...more,
    }).map(({ code }) => code);
  const bracket = (...rows: [string, string | undefined, string][]): PriceEntry => ({
    method: 'bracket',
    brackets: rows.map(([from, below, price]) => ({
      from,
      price,
      ...(below === undefined ? {} : { below }),
    })),
  });

  it('is told what is wrong with it', () => {
    expect(problems(unit('12.345'))).toEqual(['entry.tooFine']);
    expect(problems(unit('12.5'), { decimals: 0 })).toEqual(['entry.tooFine']);
    expect(problems(unit('-1'))).toEqual(['entry.negative']);
    expect(problems(unit('1e3'))).toEqual(['entry.noNumber']);
    expect(problems(bracket(['1', '6', '9'], ['5', undefined, '8']))).toEqual(['entry.overlap']);
    // Between brackets a hole is meant: there the item is not sold.
    expect(problems(bracket(['1', '5', '9'], ['6', undefined, '8']))).toEqual([]);
    expect(
      problems({
        method: 'graduated',
        slices: [
          { from: '0', below: '5', rate: '1' },
          { from: '6', rate: '1' },
        ],
      }),
    ).toEqual(['entry.hole']);
    expect(problems(bracket())).toEqual(['entry.empty']);
    expect(problems(bracket(['5', '5', '1']))).toEqual(['entry.backwards']);
    expect(problems({ method: 'share', rate: '0.1', of: [] })).toEqual(['entry.ofNothing']);
    expect(problems({ method: 'share', rate: '0.1', of: ['C'] })).toEqual(['entry.ofUnknown']);
    expect(problems({ method: 'share', rate: '-0.1', of: ['floor'] })).toEqual(['entry.negative']);
    expect(problems({ method: 'formula', formula: '1 +' })).toEqual(['entry.noFormula']);
    expect(problems({ method: 'included' }, { inside: true })).toEqual(['entry.insideOnlyUnit']);
    expect(problems(unit('3'), { inside: true })).toEqual([]);
  });

  it('is warned of where one would be sold below cost, in another way, or not any more', () => {
    const warned = (before: PriceEntry | undefined, after: PriceEntry | null, cost = '50') =>
      entryWarnings(before && { entry: before }, after && { entry: after }, { cost, elsewhere: true });
    expect(warned(unit('60'), unit('49.99'))).toEqual(['belowCost']);
    expect(warned(unit('60'), unit('50'))).toEqual([]);
    expect(warned(unit('60'), bracket(['1', undefined, '60']))).toEqual(['otherKind']);
    expect(warned(unit('60'), null)).toEqual(['ends']);
    expect(entryWarnings(undefined, { entry: unit('1') }, { cost: undefined, elsewhere: false })).toEqual([
      'missingElsewhere',
    ]);
  });

  it('is tried at quantities', () => {
    const tried = triedAt(bracket(['1', '5', '900'], ['5', '10', '1500']), ['4', '5', '10'], '150');
    expect(tried.map(({ amount, each, margin }) => [amount, each, margin])).toEqual([
      ['900', '225', '0.3333333333333333333333333333333333'],
      ['1500', '300', '0.5'],
      [null, null, null],
    ]);
    expect(leadingPrice(bracket(['5', undefined, '1000']), '100')).toEqual({
      amount: '1000',
      quantity: '5',
      margin: '0.5',
    });
    expect(leadingPrice({ method: 'hand' }, '1')).toBeNull();
  });
});

describe('an entry in cells', () => {
  const tiers = fc
    .array(fc.tuple(fc.integer({ min: 1, max: 400 }), amount(900, 2)), { minLength: 1, maxLength: 4 })
    .map((steps) => {
      let at = 0;
      return steps.map(([width, figure], index) => {
        const from = at;
        at += width;
        return index === steps.length - 1 && width % 2 === 0
          ? { from: String(from), figure }
          : { from: String(from), below: String(at), figure };
      });
    });
  const of = (figures: readonly { from: string; below?: string; figure: string }[], name: 'price' | 'rate') =>
    figures.map(({ figure, ...tier }) => ({ ...tier, [name]: figure }));
  const entry: fc.Arbitrary<PriceEntry> = fc.oneof(
    amount(90_000, 2).map((price): PriceEntry => ({ method: 'unit', price })),
    tiers.map((each) => ({ method: 'bracket', brackets: of(each, 'price') }) as unknown as PriceEntry),
    tiers.map((each) => ({ method: 'graduated', slices: of(each, 'rate') }) as unknown as PriceEntry),
    fc
      .tuple(tiers, amount(90, 2))
      .map(
        ([each, least]) => ({ method: 'usage', slices: of(each, 'rate'), least }) as unknown as PriceEntry,
      ),
    amount(3, 4).map((markUp): PriceEntry => ({ method: 'costPlus', markUp })),
    amount(1, 4).map((rate): PriceEntry => ({ method: 'share', rate, of: ['floor', 'YE-KIOSK'] })),
    fc.constantFrom<PriceEntry>(
      { method: 'hand' },
      { method: 'included' },
      { method: 'formula', formula: 'net * 0.02' },
    ),
  );
  const every = fc.option(
    fc.record({ baseMonths: fc.integer({ min: 1, max: 36 }), leastMonths: fc.integer({ min: 1, max: 36 }) }),
  );
  const methodOf = (word: string) => (word === 'none' ? 'none' : (word as PriceEntry['method']));

  it('is read as it is written, in both languages', () => {
    fc.assert(
      fc.property(entry, every, fc.constantFrom('en', 'de'), (given, recurs, language) => {
        const cells = cellsOfEntry({ entry: given, every: recurs }, language, 2);
        expect(readEntryCells(cells, { language, before: undefined, methodOf })).toEqual({
          is: 'entry',
          entry: { entry: given, every: recurs },
        });
      }),
    );
    expect(
      readEntryCells(cellsOfEntry(null, 'en', 2), { language: 'en', before: undefined, methodOf }),
    ).toEqual({
      is: 'none',
    });
  });

  it('keeps the method and period that it has where nothing is said of them', () => {
    const before = { entry: { method: 'bracket' as const, brackets: [] }, every: { baseMonths: 12 } };
    expect(readEntryCells({ tiers: '1 to 5: 9; 5-: 8' }, { language: 'en', before, methodOf })).toEqual({
      is: 'entry',
      entry: {
        entry: {
          method: 'bracket',
          brackets: [
            { from: '1', below: '5', price: '9' },
            { from: '5', price: '8' },
          ],
        },
        every: { baseMonths: 12 },
      },
    });
  });

  it('tells of rows of a sheet what each becomes, and what in it cannot be read', () => {
    const head = ['Item', 'List', 'Price', 'Way', 'Remark', 'Inside'];
    const body = [
      ['a', '', '12,50', '', 'new', ''],
      ['B', 'GBP', '1.250', '', '', ''],
      ['C', '', '9', '', '', ''],
      ['a', '', '13', '', '', ''],
      ['A', 'XYZ', 'dear', '', '', 'RB'],
      ['B', '', '', 'none', '', ''],
      ['', '', '', '', '', ''],
      ['B', 'GBP', '', 'sideways', '', 'KIT'],
    ];
    const reader = sheetReader(head, {
      language: 'de',
      list: 'EUR',
      titles: {
        ...(Object.fromEntries(sheetColumns.map((column) => [column, []])) as unknown as Record<
          SheetColumn,
          string[]
        >),
        sku: ['Item'],
        method: ['Way'],
      },
      hasItem: (sku) => ['A', 'B'].includes(sku),
      hasList: (list) => ['EUR', 'GBP'].includes(list),
      isBundle: (sku) => sku === 'KIT',
      before: () => undefined,
      methodOf: (word) => (word === 'none' ? 'none' : undefined),
    });
    expect(reader?.unknown).toEqual(['Remark']);
    expect(
      body
        .flatMap((line, index) => reader?.read(line, index + 2) ?? [])
        .map((row) => [
          row.at,
          row.is === 'entry'
            ? row.entry?.entry
            : Object.entries(row.wrong).map(([column, { code }]) => `${column} ${code}`),
        ]),
    ).toEqual([
      [2, { method: 'unit', price: '12.5' }],
      [3, { method: 'unit', price: '1250' }],
      [4, ['sku cell.noItem']],
      [5, ['sku cell.rowTwice']],
      [6, ['list cell.noList', 'inside cell.noBundle', 'price cell.noNumber']],
      [7, undefined],
      [9, ['method cell.noMethod']],
    ]);
  });
});
