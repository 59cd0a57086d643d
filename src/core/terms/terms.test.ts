/** Terms: what may be kept, and what becomes of what is in force under random commands over passing days. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  afterSteps,
  inForce,
  planFor,
  planRemoval,
  readCondition,
  readLevels,
  standAmong,
  standsOf,
  termKey,
  termProblems,
  writeCondition,
  writeLevels,
  type KeptTerm,
  type TermKindId,
  type TermMeans,
} from '.';

const days = Array.from({ length: 20 }, (_, at) => `2026-05-${String(at + 1).padStart(2, '0')}`);
const dayAt = (at: number): string => days[Math.min(at, days.length - 1)] ?? '';

let made = 0;
const fresh = (): string => `r${String((made += 1))}`;

/** What holds on a day, as texts. */
const held = (kind: TermKindId, rows: readonly KeptTerm[], day: string): string[] =>
  [
    ...inForce(
      rows.map((row) => ({ row, validFrom: row.from, validTo: row.to })),
      ({ row }) => termKey(kind, row, row.id),
      day,
    ).values(),
  ]
    .map(({ row }) => JSON.stringify(row.cells))
    .sort();

const cellsOf = (kind: TermKindId, key: number, value: number): Record<string, string> =>
  kind === 'commission'
    ? { role: ['engineer', 'manager'][key % 2] ?? '', base: String(value / 100), higher: '0.5' }
    : { en: `Agreed ${String(key)}`, class: 'key', rate: String(value / 100) };

describe('what is in force', () => {
  const command = fc.record({
    do: fc.constantFrom('add', 'change', 'end', 'remove', 'wait', 'wait'),
    which: fc.nat(9),
    key: fc.nat(1),
    value: fc.integer({ min: 1, max: 40 }),
    ahead: fc.integer({ min: -1, max: 5 }),
  });

  it.each(['commission', 'agreements'] as const)(
    'of %s is never changed, only followed and ended',
    (kind) => {
      fc.assert(
        fc.property(fc.array(command, { maxLength: 25 }), (commands) => {
          let rows: KeptTerm[] = [
            { id: 'first', cells: cellsOf(kind, 0, 5), from: null, to: null, follows: null },
          ];
          let now = 2;
          commands.forEach((given) => {
            const [today, from] = [dayAt(now), dayAt(now + given.ahead)];
            const one = rows[given.which % Math.max(1, rows.length)];
            if (given.do === 'wait') {
              now += 1;
              return;
            }
            if (given.do !== 'add' && !one) return;
            const wanted = (): Parameters<typeof planFor>[1] => {
              if (given.do === 'add' || !one)
                return { id: undefined, cells: cellsOf(kind, given.key, given.value), from, to: null };
              if (given.do === 'end') return { ...one, to: from };
              const cells =
                kind === 'commission'
                  ? { ...one.cells, base: String(given.value / 100) }
                  : { ...one.cells, rate: String(given.value / 100) };
              return { id: one.id, cells, from: one.from, to: one.to };
            };
            const plan =
              given.do === 'remove' && one
                ? planRemoval(kind, one.id, rows, { today, from })
                : planFor(kind, wanted(), rows, { today, from });
            const before = days.map((day) => held(kind, rows, day));
            if (!plan.ok) return;
            const stand = one && standAmong(kind, one, rows, today);
            rows = afterSteps(rows, plan.steps, fresh);
            const after = days.map((day) => held(kind, rows, day));
            // All at once they stand where each stands by itself.
            expect([...standsOf(kind, rows, today).values()]).toEqual(
              rows.map((row) => standAmong(kind, row, rows, today)),
            );
            // The past is as it was, and so is today where something else begins later.
            for (let day = 0; day < now; day += 1) expect(after[day]).toEqual(before[day]);
            if (given.ahead > 0 && given.do !== 'change') expect(after[now]).toEqual(before[now]);
            // What was asked for holds from its day on.
            if (given.do === 'change' && stand === 'now' && plan.steps.length > 0)
              expect(held(kind, rows, from)).toContain(JSON.stringify(wanted().cells));
          });
        }),
      );
    },
  );

  it('is told apart from what is to come and what is over', () => {
    const rows: KeptTerm[] = [
      { id: 'a', cells: cellsOf('commission', 0, 5), from: null, to: null, follows: null },
      { id: 'b', cells: cellsOf('commission', 0, 6), from: dayAt(5), to: null, follows: null },
      { id: 'c', cells: cellsOf('commission', 0, 7), from: dayAt(9), to: null, follows: null },
    ];
    expect(rows.map((row) => standAmong('commission', row, rows, dayAt(6)))).toEqual([
      'over',
      'now',
      'ahead',
    ]);
    const plan = (id: string, more: Partial<KeptTerm>, from = dayAt(7)) => {
      const row = rows.find((each) => each.id === id) as KeptTerm;
      const answer = planFor('commission', { ...row, ...more }, rows, { today: dayAt(6), from });
      return answer.ok ? answer.steps.map(({ does }) => does) : answer.problem.code;
    };
    expect(plan('a', { cells: cellsOf('commission', 0, 9) })).toBe('term.inForce');
    expect(plan('b', { cells: cellsOf('commission', 0, 9) })).toEqual(['add']);
    expect(plan('b', { cells: cellsOf('commission', 0, 9) }, dayAt(9))).toBe('term.twice');
    expect(plan('b', { cells: cellsOf('commission', 0, 9) }, dayAt(5))).toBe('term.past');
    expect(plan('b', { cells: cellsOf('commission', 1, 6) })).toBe('term.inForce');
    expect(plan('b', { to: dayAt(5) })).toBe('term.past');
    expect(plan('b', { to: dayAt(8) })).toEqual(['end']);
    expect(plan('c', { from: dayAt(7) })).toEqual(['change']);
    expect(plan('c', { from: dayAt(5) })).toBe('term.past');
    expect(plan('c', {})).toEqual([]);
  });
});

describe('what would follow', () => {
  it('can be taken back before its day, and put on another: what it follows goes on until then', () => {
    const first: KeptTerm = {
      id: 'a',
      cells: cellsOf('agreements', 0, 5),
      from: dayAt(1),
      to: dayAt(15),
      follows: null,
    };
    const at = { today: dayAt(3), from: dayAt(8) };
    const steps = (rows: readonly KeptTerm[], row: KeptTerm, more: Partial<KeptTerm>) => {
      const plan = planFor('agreements', { ...row, ...more }, rows, at);
      return plan.ok ? afterSteps(rows, plan.steps, fresh) : [];
    };
    const rows = steps([first], first, { cells: cellsOf('agreements', 0, 9) });
    const second = rows[1] as KeptTerm;
    expect(rows.map(({ from, to }) => [from, to])).toEqual([
      [dayAt(1), dayAt(7)],
      [dayAt(8), dayAt(15)],
    ]);
    expect(steps(rows, second, { from: dayAt(5) }).map(({ from, to }) => [from, to])).toEqual([
      [dayAt(1), dayAt(4)],
      [dayAt(5), dayAt(15)],
    ]);
    const back = planRemoval('agreements', second.id, rows, at);
    expect(back.ok && afterSteps(rows, back.steps, fresh)).toEqual([first]);
  });
});

describe('a row', () => {
  const means: TermMeans = {
    families: new Set(['floor']),
    items: new Set(['A-1']),
    lists: new Map([
      ['EUR', 2],
      ['YEN', 0],
    ]),
    customers: new Set(['C-1']),
    roles: ['engineer', 'manager', 'director'],
    classes: ['key', 'dealer'],
    regions: ['eu'],
    currencies: new Map([['EUR', 2]]),
  };
  const wrong = (
    kind: TermKindId,
    cells: Record<string, string>,
    more: { from?: string; to?: string } = {},
  ) =>
    termProblems(kind, { cells, from: more.from ?? null, to: more.to ?? null }, means).map(
      ({ code, field }) => `${code} ${field}`,
    );

  it('is told what is wrong with it', () => {
    expect(wrong('agreements', { en: 'A', rate: '0.1' })).toEqual(['term.nobody customer']);
    expect(wrong('promotions', { en: 'A', rate: '0.1' })).toEqual([]);
    expect(wrong('agreements', { en: 'A', class: 'key', rate: '1.1' })).toEqual(['term.outside rate']);
    expect(wrong('agreements', { en: 'A', class: 'gold', rate: 'x' })).toEqual([
      'term.unknown class',
      'term.noNumber rate',
    ]);
    expect(wrong('agreements', { en: 'A', customer: 'C-1', class: 'key', rate: '0.1', price: '3' })).toEqual([
      'term.ofOne class',
      'term.rateOrPrice rate',
      'term.priceOfItem price',
    ]);
    // A price in the decimals of another currency.
    expect(wrong('agreements', { en: 'A', class: 'key', sku: 'A-1', list: 'YEN', price: '12.5' })).toEqual([
      'term.tooFine price',
    ]);
    expect(
      wrong('agreements', { en: 'A', class: 'key', rate: '0.1' }, { from: '2026-05-02', to: '2026-05-01' }),
    ).toEqual(['term.backwards to']);
    expect(
      wrong('quantityDiscounts', { en: 'Q', by: 'whole', levels: '5: 0.1; 3: 0.2', family: 'floor' }),
    ).toEqual(['term.levels levels']);
    expect(wrong('quantityDiscounts', { en: 'Q', by: 'whole', levels: '5: 0.1' })).toEqual([
      'term.ofOne family',
    ]);
    const limit = { role: 'engineer', signs: 'manager', above: 'director' };
    expect(wrong('limits', { ...limit, by: 'discount', target: '0.05', limit: '0.1', floor: '0.2' })).toEqual(
      [],
    );
    expect(wrong('limits', { ...limit, by: 'margin', target: '0.05', limit: '0.1', floor: '0.2' })).toEqual([
      'term.order limit',
    ]);
    expect(wrong('policies', { role: 'engineer', en: 'P', condition: 'net >', signs: 'manager' })).toEqual([
      'term.condition condition',
    ]);
    expect(wrong('policies', { role: 'engineer', en: 'P', condition: 'net > 5', signs: 'king' })).toEqual([
      'term.unknown signs',
    ]);
    expect(wrong('commission', { role: 'engineer', base: '0.02', higher: '0.01' })).toEqual([
      'term.higher higher',
    ]);
    expect(wrong('tax', { country: 'se', rate: '0.25' })).toEqual(['term.unknown country']);
    expect(wrong('customers', { number: 'C 1' })).toContain('term.badCode number');
  });

  it('has its levels as one text', () => {
    expect(readLevels('4: 0.04; 12: 0.070')).toEqual([
      { from: '4', rate: '0.04' },
      { from: '12', rate: '0.07' },
    ]);
    expect(writeLevels([{ from: '4', rate: '0.04' }])).toBe('4: 0.04');
    for (const bad of ['', '4', '4: 2', '-1: 0.1', '4: 0.1; 4: 0.2', 'four: 0.1'])
      expect(readLevels(bad)).toBeNull();
  });
});

describe('a condition as a sentence', () => {
  const number = fc.integer({ min: 0, max: 90_000_000 }).map((units) => String(units / 100));
  const clause = fc.oneof(
    fc
      .tuple(
        fc.constantFrom(
          'net',
          'paymentDays',
          'specialParts',
          'passedWarnings',
          'months',
          'lines',
          'margin',
          'discount',
        ),
        fc.constantFrom('>', '>=', '<', '<=', '=', '!='),
        number,
      )
      .map(([name, op, value]) => `${name} ${op} ${value}`),
    fc.constantFrom(
      'country = "SE"',
      'country != "SE"',
      'customerClass = "key"',
      'leased = true',
      'leased = false',
    ),
  );

  it('is read as it is written, in both languages', () => {
    fc.assert(
      fc.property(
        fc.array(clause, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('and', 'or'),
        fc.constantFrom('en', 'de'),
        (clauses, join, language) => {
          const source = clauses.join(` ${join} `);
          const sentence = writeCondition(source, language);
          expect(readCondition(sentence ?? '', language)).toBe(source);
        },
      ),
    );
  });

  it('says what the house says, and leaves what is more than a sentence', () => {
    expect(writeCondition('net > 250000 and margin < 0.35', 'en')).toBe(
      'net is more than 250000 and margin is less than 35 %',
    );
    expect(readCondition('Netto ist mehr als 250.000 und Marge ist weniger als 35 %', 'de')).toBe(
      'net > 250000 and margin < 0.35',
    );
    expect(readCondition('country is SE', 'en')).toBe('country = "SE"');
    expect(writeCondition('leased', 'en')).toBe('leased is yes');
    for (const more of ['net > 2 * months', 'net > 1 and (lines > 2 or leased)', 'net >'])
      expect(writeCondition(more, 'en')).toBeNull();
    for (const none of ['net is dear', 'weather is bad', 'margin is more than 3', ''])
      expect(readCondition(none, 'en')).toBeNull();
  });
});
