import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mostRows, readPartList } from './part-list';

const rows = (text: string) => {
  const read = readPartList(text, 'en');
  return read.is === 'rows' ? read.rows.map(({ number, quantity }) => [number, quantity]) : read;
};

describe('a pasted list of part numbers', () => {
  it.each([
    ['SILL-1212-X', [['SILL-1212-X', 1]]],
    ['SILL-1212-X\t3', [['SILL-1212-X', 3]]],
    ['3\tSILL-1212-X', [['SILL-1212-X', 3]]],
    ['3 x SILL-1212-X', [['SILL-1212-X', 3]]],
    ['3x SILL-1212-X', [['SILL-1212-X', 3]]],
    ['SILL-1212-X x3', [['SILL-1212-X', 3]]],
    ['SILL-1212-X 3 pcs', [['SILL-1212-X', 3]]],
    ['SILL-1212-X;"3";Floor scale, stainless', [['SILL-1212-X', 3]]],
    ['SILL-1212-X\tFloor scale 2 t\t3', [['SILL-1212-X', 3]]],
    [
      'RB-060-180-A-P-S-D-0-3-O/RLT 2\r\n\r\n  YE-KIOSK  \n',
      [
        ['RB-060-180-A-P-S-D-0-3-O/RLT', 2],
        ['YE-KIOSK', 1],
      ],
    ],
    ['4711', [['4711', 1]]],
    ['SILL-1212-X 0', [['SILL-1212-X', 0]]],
    ['SILL-1212-X -3', [['SILL-1212-X', 0]]],
    ['1.5 SILL-1212-X', [['SILL-1212-X', 1.5]]],
    ['BC-PRT-T,2', [['BC-PRT-T', 2]]],
    ['BC-IP66,2', [['BC-IP66', 2]]],
    ['2,BC-PRT-T', [['BC-PRT-T', 2]]],
    ['BC-PRT-T, Ticket printer, 2', [['BC-PRT-T', 2]]],
    ['BC-PRT-T,"2"', [['BC-PRT-T', 2]]],
    ['RB-CABLE\t12.5', [['RB-CABLE', 12.5]]],
    ['RB-CABLE,12.5 m', [['RB-CABLE', 12.5]]],
    ['BC-IP66\t3 pcs', [['BC-IP66', 3]]],
    ['BC-IP66\t3pcs', [['BC-IP66', 3]]],
    ['3 Stk. BC-IP66', [['BC-IP66', 3]]],
    ['RB-CABLE\t2,5 m', [['RB-CABLE', 2.5]]],
    ['BC-IP66\tabc', [['BC-IP66', 0]]],
    ['BC-IP66\tFloor scale\tblue', [['BC-IP66', 0]]],
    ['BC-IP66\t1.2345', [['BC-IP66', 0]]],
    ['SILL-1212-X 9999999', [['SILL-1212-X', 0]]],
    ['', []],
  ])('%j is read', (text, expected) => expect(rows(text)).toEqual(expected));
  it('says what could not be read as a quantity, and in which unit it was', () => {
    const told = (text: string) => {
      const read = readPartList(text, 'de');
      return read.is === 'rows'
        ? read.rows.map(({ quantity, unread, unit }) => [quantity, unread, unit])
        : [];
    };
    expect(told('BC-IP66\tabc\nBC-IP66\t-3\nRB-CABLE\t2,5 m\nBC-IP66 3 Stk\nBC-IP66')).toEqual([
      [0, 'abc', undefined],
      [0, '-3', undefined],
      [2.5, undefined, 'm'],
      [3, undefined, 'pc'],
      [1, undefined, undefined],
    ]);
  });
  it('takes a share for a discount, whatever its place', () => {
    const read = readPartList('SILL-1212-X\t3\t3,5 %\nYE-KIOSK 12% 2\n5%\tSV-COMM\nBC-IP66 4', 'en');
    expect(
      read.is === 'rows' && read.rows.map(({ number, quantity, discount }) => [number, quantity, discount]),
    ).toEqual([
      ['SILL-1212-X', 3, '3.5'],
      ['YE-KIOSK', 2, '12'],
      ['SV-COMM', 1, '5'],
      ['BC-IP66', 4, undefined],
    ]);
  });
  it('tells the line of each row, blank lines counted', () => {
    expect(readPartList('\nA-1\n\nB-2 5', 'en')).toEqual({
      is: 'rows',
      rows: [
        { at: 2, number: 'A-1', quantity: 1 },
        { at: 4, number: 'B-2', quantity: 5 },
      ],
    });
  });
  it('is not read where it is too long', () => {
    expect(readPartList('A-1\n'.repeat(mostRows), 'en').is).toBe('rows');
    expect(readPartList('A-1\n'.repeat(10_001), 'en')).toEqual({ is: 'tooMany', count: 10_001 });
  });
  it('loses no row, however it is written', () => {
    const number = fc.stringMatching(/^[A-Z]{2}-[A-Z0-9]{1,6}$/);
    const row = fc.record({
      number,
      quantity: fc.integer({ min: 1, max: 999 }),
      as: fc.constantFrom(
        (n: string, q: number) => `${n}\t${String(q)}`,
        (n: string, q: number) => `${String(q)} x ${n}`,
        (n: string, q: number) => `${n};${String(q)};text`,
        (n: string, q: number) => `  ${n}   ${String(q)} pcs`,
      ),
    });
    fc.assert(
      fc.property(fc.array(row), (all) => {
        expect(rows(all.map(({ number: n, quantity, as }) => as(n, quantity)).join('\n'))).toEqual(
          all.map(({ number: n, quantity }) => [n, quantity]),
        );
      }),
    );
  });

  it('reads quantities in the manner of the language, and asks where they could mean two things', () => {
    const many = (text: string, language: string) => {
      const list = readPartList(text, language);
      return list.is === 'rows' && list.rows.map(({ quantity, twoWays }) => twoWays ?? quantity);
    };
    expect([
      many('YE-KIOSK\t1,000', 'en'),
      many('YE-KIOSK\t1.000', 'en'),
      many('YE-KIOSK\t1.000', 'de'),
      many('1,000 YE-KIOSK', 'de'),
    ]).toEqual([[1000], [['1', '1000']], [1000], [['1', '1000']]]);
    expect([
      many('YE-KIOSK\t2.5', 'en'),
      many('YE-KIOSK\t100,000', 'en'),
      many('YE-KIOSK\t-3', 'en'),
      many('YE-KIOSK 12', 'de'),
    ]).toEqual([[2.5], [0], [0], [12]]);
  });
});
