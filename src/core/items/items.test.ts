/** Items and families: what may be kept, to whom it is sold, what follows what. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  barIn,
  passesFilters,
  tellingProperties,
  chainOf,
  differing,
  familyProblems,
  freshFamily,
  freshItem,
  inside,
  isInSteps,
  isShown,
  itemProblems,
  propertiesOf,
  refusedIn,
  same,
  successorOf,
  tidied,
  unsaid,
  usualOf,
  valueProblem,
  type Bar,
  type Families,
  type Family,
  type Item,
  type ItemProperty,
} from '.';

const capacity: ItemProperty = {
  id: 'capacity',
  name: { en: 'Capacity' },
  is: 'number',
  unit: 't',
  decimals: 1,
};
const cover: ItemProperty = {
  id: 'cover',
  name: { en: 'Cover' },
  is: 'choice',
  options: [
    { id: 'steel', name: { en: 'Steel' } },
    { id: 'rubber', name: { en: 'Rubber' } },
  ],
};
const known: Families = new Map(
  [
    { ...freshFamily('scales'), properties: [capacity] },
    { ...freshFamily('floor'), parent: 'scales', properties: [cover] },
    { ...freshFamily('pallet'), parent: 'floor' },
    freshFamily('yard'),
  ].map((family) => [family.code, family]),
);
const named = (more: Partial<Item> = {}): Item => ({
  ...freshItem('FS-1', 'floor'),
  name: { en: 'Floor scale' },
  ...more,
});
const around = (items: Record<string, string | null> = {}) => ({
  families: known,
  items: new Map(Object.entries(items).map(([sku, replacedBy]) => [sku, { replacedBy }])),
});
const codes = (item: Item, items: Record<string, string | null> = {}): string[] =>
  itemProblems(item, around(items)).map(({ code, field }) => `${code} ${field}`);

describe('families', () => {
  it('have the properties of those that they are inside of, the outermost first', () => {
    expect(propertiesOf(known, 'pallet').map(({ id }) => id)).toEqual(['capacity', 'cover']);
    expect(propertiesOf(known, 'yard')).toEqual([]);
    expect([...inside(known, 'scales')].sort()).toEqual(['floor', 'pallet', 'scales']);
  });

  it('are in no circle, in none that is not there, and have no property twice', () => {
    const problems = (family: Family): string[] => familyProblems(family, known).map(({ code }) => code);
    expect(problems({ ...freshFamily('scales'), parent: 'pallet', properties: [capacity] })).toContain(
      'family.circle',
    );
    expect(problems({ ...freshFamily('scales'), parent: 'scales' })).toContain('family.circle');
    expect(problems({ ...freshFamily('new'), parent: 'nowhere' })).toEqual(['family.unknown']);
    expect(problems({ ...freshFamily('new'), parent: 'floor', properties: [capacity] })).toEqual([
      'family.elsewhere',
    ]);
    // Nor may what those inside have come down from outside as well.
    expect(problems({ ...freshFamily('scales'), properties: [capacity, cover] })).toEqual([
      'family.elsewhere',
    ]);
    expect(problems({ ...freshFamily('new'), properties: [capacity, capacity] })).toEqual(['family.twice']);
    expect(problems({ ...freshFamily('new'), properties: [{ ...capacity, id: 'Big id' }] })).toEqual([
      'family.badId',
    ]);
    expect(problems({ ...freshFamily('new'), properties: [{ ...cover, options: [] }] })).toEqual([
      'family.noOptions',
    ]);
  });

  it('end in a chain whatever stands in them', () => {
    const code = fc.constantFrom('a', 'b', 'c', 'd', 'e');
    fc.assert(
      fc.property(fc.array(fc.record({ code, parent: fc.option(code) }), { maxLength: 8 }), (rows) => {
        const families: Families = new Map(
          rows.map((row) => [row.code, { ...freshFamily(row.code), parent: row.parent }]),
        );
        for (const each of ['a', 'b', 'c', 'd', 'e']) {
          const chain = chainOf(families, each).map((family) => family.code);
          expect(new Set(chain).size).toBe(chain.length);
          expect(chain.length === 0 || chain.at(-1) === each).toBe(true);
        }
      }),
    );
  });

  it('kept one after another as long as nothing is wrong never come to a circle', () => {
    const code = fc.constantFrom('a', 'b', 'c', 'd');
    fc.assert(
      fc.property(
        fc.array(fc.record({ code, parent: fc.option(code), own: fc.option(fc.constantFrom('x', 'y')) }), {
          maxLength: 20,
        }),
        (commands) => {
          let families: Families = new Map();
          for (const { code: of, parent, own } of commands) {
            const family: Family = {
              ...freshFamily(of),
              parent,
              properties: own === null ? [] : [{ ...capacity, id: own }],
            };
            if (familyProblems(family, families).length === 0) families = new Map(families).set(of, family);
          }
          for (const each of families.keys()) {
            expect(chainOf(families, each)[0]?.parent ?? null).toBeNull();
            const ids = propertiesOf(families, each).map(({ id }) => id);
            expect(new Set(ids).size).toBe(ids.length);
          }
        },
      ),
    );
  });
});

describe('an item', () => {
  it('says of properties only what they take', () => {
    expect(codes(named({ properties: { capacity: '1.5', cover: 'steel' } }))).toEqual([]);
    expect(codes(named({ properties: { capacity: '1.55' } }))).toEqual(['item.tooFine properties.capacity']);
    expect(codes(named({ properties: { capacity: 'much' } }))).toEqual(['item.noNumber properties.capacity']);
    expect(codes(named({ properties: { cover: 'gold' } }))).toEqual(['item.noChoice properties.cover']);
    expect(codes(named({ properties: { power: '3' } }))).toEqual(['item.noProperty properties.power']);
    expect(valueProblem({ id: 'wet', name: {}, is: 'yesNo' }, 'yes')?.code).toBe('item.noYesNo');
    expect(unsaid(named({ properties: { cover: 'steel' } }), known)).toEqual(['capacity']);
  });

  it('is kept with its amounts in one form, and without texts that say nothing', () => {
    const item = named({ cost: '1.50', mass: '2.000', properties: { capacity: '1.0', cover: 'steel' } });
    expect(tidied({ ...item, says: { en: 'Flat', de: ' ' } }, known)).toMatchObject({
      cost: '1.5',
      mass: '2',
      says: { en: 'Flat' },
      properties: { capacity: '1', cover: 'steel' },
    });
  });

  it('is refused where something of it cannot be', () => {
    expect(codes(named({ sku: 'fs 1' }))).toEqual(['item.badNumber sku']);
    expect(codes(named({ name: { en: ' ' } }))).toEqual(['item.noName name']);
    expect(codes(named({ cost: '-1', mass: '-2' }))).toEqual(['item.negative cost', 'item.negative mass']);
    expect(codes(named({ family: 'gone' }))).toEqual(['family.unknown family']);
    expect(codes(named({ step: '0' }))).toEqual(['item.noStep step']);
    expect(codes(named({ step: '4', usualQuantity: '6' }))).toEqual(['item.notInSteps usualQuantity']);
    expect(codes(named({ bars: [{ class: null, region: null, role: null, reason: { en: 'No' } }] }))).toEqual(
      ['item.barsNobody bars.0'],
    );
    expect(codes(named({ bars: [{ class: 'dealer', region: null, role: null, reason: {} }] }))).toEqual([
      'item.noReason bars.0',
    ]);
  });

  it('is replaced by another one that does not lead back to it', () => {
    expect(codes(named({ replacedBy: 'FS-2' }), { 'FS-2': 'FS-3', 'FS-3': null })).toEqual([]);
    expect(codes(named({ replacedBy: 'FS-2' }), { 'FS-2': 'FS-3', 'FS-3': 'FS-1' })).toEqual([
      'item.circle replacedBy',
    ]);
    expect(codes(named({ replacedBy: 'FS-1' }), { 'FS-1': null })).toEqual(['item.circle replacedBy']);
    expect(codes(named({ replacedBy: 'FS-9' }))).toEqual(['item.unknown replacedBy']);
    expect(codes(named({ goesWith: ['FS-1', 'FS-2', 'FS-2'] }), { 'FS-2': null })).toEqual([
      'item.withItself goesWith.0',
      'item.twice goesWith.2',
    ]);
  });
});

describe('what differs', () => {
  it('is told whatever order its parts stand in', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (one, other) => {
        const turned = (value: unknown): unknown =>
          value === null || typeof value !== 'object'
            ? value
            : Array.isArray(value)
              ? value.map(turned)
              : Object.fromEntries(
                  Object.entries(value)
                    .reverse()
                    .map(([key, each]) => [key, turned(each)]),
                );
        expect(same(one, turned(one))).toBe(true);
        // As JSON has it: nothing below zero is zero.
        const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value)) as unknown;
        let alike = true;
        try {
          expect(plain(one)).toStrictEqual(plain(other));
        } catch {
          alike = false;
        }
        expect(same(plain(one), plain(other))).toBe(alike);
      }),
    );
    expect(differing(named(), named({ name: { de: 'Waage', en: 'Floor scale' }, cost: '0' }))).toEqual([
      'name',
    ]);
  });
});

describe('selling', () => {
  const sale = { class: 'direct', region: 'uk', role: 'engineer' };

  it('is barred where all that a bar says holds, and tells the first reason', () => {
    const part = fc.option(fc.constantFrom('direct', 'uk', 'engineer', 'dealer'));
    fc.assert(
      fc.property(
        fc.array(fc.record({ class: part, region: part, role: part }), { maxLength: 6 }),
        (rows) => {
          const bars = rows.map((row, at) => ({ ...row, reason: { en: String(at) } }));
          const first = rows.findIndex(
            (row) =>
              (row.class === null || row.class === sale.class) &&
              (row.region === null || row.region === sale.region) &&
              (row.role === null || row.role === sale.role),
          );
          expect(barIn(bars, sale)?.reason.en).toBe(first < 0 ? undefined : String(first));
        },
      ),
    );
  });

  it('ends with being active, and asks for being sold alone', () => {
    expect(refusedIn(named(), sale)).toBeNull();
    expect(refusedIn(named({ active: false, replacedBy: 'FS-2' }), sale)).toEqual({
      is: 'inactive',
      replacedBy: 'FS-2',
    });
    expect(refusedIn(named({ sold: false }), sale)).toEqual({ is: 'inside' });
    const bar: Bar = { class: null, region: null, role: 'dealer', reason: { en: 'Not by dealers' } };
    expect(isShown(named({ bars: [bar] }), 'dealer')).toBe(false);
    expect(isShown(named({ bars: [bar] }), 'engineer')).toBe(true);
    expect(isShown(named({ bars: [{ ...bar, region: 'na' }] }), 'dealer')).toBe(true);
  });

  it('goes on with the first item after it that is sold', () => {
    const items = new Map([
      ['A', { active: false, replacedBy: 'B' }],
      ['B', { active: false, replacedBy: 'C' }],
      ['C', { active: true, replacedBy: null }],
      ['D', { active: false, replacedBy: 'E' }],
      ['E', { active: false, replacedBy: 'D' }],
    ]);
    expect(successorOf(items, 'A')).toBe('C');
    expect(successorOf(items, 'D')).toBeNull();
    expect(successorOf(items, 'C')).toBeNull();
  });

  it('is in steps, and begins with what is usual', () => {
    expect(usualOf(named())).toBe(1);
    expect(usualOf(named({ step: '4' }))).toBe(4);
    expect(usualOf(named({ step: '4', usualQuantity: '8' }))).toBe(8);
    expect(isInSteps({ step: '2.5' }, 7.5)).toBe(true);
    expect(isInSteps({ step: '2.5' }, 7)).toBe(false);
    expect(isInSteps({ step: null }, 7)).toBe(true);
  });
});

describe('finding by properties', () => {
  const sizes = fc.integer({ min: 0, max: 500 }).map((units) => String(units / 10));
  it('finds what lies between both borders, they among it', () => {
    fc.assert(
      fc.property(fc.option(sizes), fc.option(sizes), fc.option(sizes), (value, from, to) => {
        const properties: Item['properties'] = value === null ? {} : { capacity: value };
        const inside =
          (from === null && to === null) ||
          (value !== null &&
            (from === null || Number(value) >= Number(from)) &&
            (to === null || Number(value) <= Number(to)));
        expect(passesFilters(properties, { capacity: { is: 'range', from, to } })).toBe(inside);
      }),
    );
  });

  it('asks only for what tells some from others', () => {
    const items: Pick<Item, 'properties'>[] = [
      { properties: { capacity: '1.5', cover: 'steel' } },
      { properties: { capacity: '3', cover: 'steel' } },
      { properties: {} },
    ];
    expect(tellingProperties([capacity, cover], items).map(({ id }) => id)).toEqual(['capacity']);
    const steel = { cover: { is: 'one' as const, value: 'steel' } };
    expect(items.map(({ properties }) => passesFilters(properties, steel))).toEqual([true, true, false]);
  });
});
