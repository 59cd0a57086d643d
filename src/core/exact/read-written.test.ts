/**
 * Numbers as people write them in two languages: what they are, what could mean two things, and what is none.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readWritten } from './index';

const asRead = (typed: string, language: string): string | readonly string[] | null => {
  const read = readWritten(typed, language);
  return read.is === 'number' ? read.value : read.is === 'twoWays' ? read.values : null;
};

/** What is written, and what it is in English and in German. */
type Row = [typed: string, english: string | string[] | null, german: string | string[] | null];
const both = (typed: string, value: string | null): Row => [typed, value, value];

const table: Row[] = [
  ...['0', '7', '18', '250', '1000', '96000', '100000', '123456789'].map((each) => both(each, each)),
  both('007', '7'),
  both('00', '0'),
  both('0.50', '0.5'),
  both('0,50', '0.5'),
  both('12.5', '12.5'),
  both('12,5', '12.5'),
  both('12.50', '12.5'),
  both('3.35', '3.35'),
  both('3,35', '3.35'),
  both('1234.5', '1234.5'),
  both('1234,5', '1234.5'),
  both('1234.56', '1234.56'),
  both('1234,5678', '1234.5678'),
  both('0.125', '0.125'),
  both('0,125', '0.125'),
  both('0.001', '0.001'),
  both('00.500', '0.5'),
  both('.5', '0.5'),
  both(',5', '0.5'),
  both('.125', '0.125'),
  both('12.', '12'),
  both('12,', '12'),
  both('1234.567', '1234.567'),
  both('1234,567', '1234.567'),
  both('12345.678', '12345.678'),
  both('1,234.5', '1234.5'),
  both('1.234,5', '1234.5'),
  both('1,234,567.89', '1234567.89'),
  both('1.234.567,89', '1234567.89'),
  both('12,345.678', '12345.678'),
  both('12.345,678', '12345.678'),
  both('1,234.000', '1234'),
  both('1.234,000', '1234'),
  both('1,234,567', '1234567'),
  both('1.234.567', '1234567'),
  both('100,000,000', '100000000'),
  both('100.000.000', '100000000'),
  both('1 000', '1000'),
  both('1 234 567', '1234567'),
  both('18 000', '18000'),
  both('1 234.5', '1234.5'),
  both('1 234,5', '1234.5'),
  both('1 234,567', '1234.567'),
  both('1\u00a0000', '1000'),
  both('1\u202f000', '1000'),
  both('1\u2009000', '1000'),
  both("1'000", '1000'),
  both('1’234’567', '1234567'),
  both("1'234.5", '1234.5'),
  both('-3', '-3'),
  both('−3', '-3'),
  both('- 3', '-3'),
  both('+3', '3'),
  both('-12.5', '-12.5'),
  both('−12,5', '-12.5'),
  both('-0', '0'),
  both('-0.00', '0'),
  both('-1,234.5', '-1234.5'),
  both('  42  ', '42'),
  both('\t8\u00a0', '8'),
  ['1,000', '1000', ['1', '1000']],
  ['1.000', ['1', '1000'], '1000'],
  ['60,000', '60000', ['60', '60000']],
  ['60.000', ['60', '60000'], '60000'],
  ['100,000', '100000', ['100', '100000']],
  ['100.000', ['100', '100000'], '100000'],
  ['1,250', '1250', ['1.25', '1250']],
  ['1.250', ['1.25', '1250'], '1250'],
  ['3,125', '3125', ['3.125', '3125']],
  ['3.125', ['3.125', '3125'], '3125'],
  ['-1,000', '-1000', ['-1', '-1000']],
  ['-1.000', ['-1', '-1000'], '-1000'],
  ['12,345', '12345', ['12.345', '12345']],
  ['999.999', ['999.999', '999999'], '999999'],
  ...[
    '',
    ' ',
    '-',
    '+',
    '.',
    ',',
    'x',
    '1x',
    'x1',
    '1e3',
    '0x10',
    '½',
    '١٢',
    '1..5',
    '1,,5',
    '1.,5',
    '--4',
    '+-4',
    '1-2',
    '1/2',
    '1.2.3',
    '1,2,3',
    '1,23.4',
    '1.23,4',
    '12,34,567',
    '1234,567,890',
    '1.234.56',
    '1,234,56',
    '12 34',
    '1 2',
    '1  000',
    '1 0000',
    '1234 567',
    '1 234 56',
    "1'2",
    '1.000 000',
    '1,000 000',
    'NaN',
    'Infinity',
    '10 %',
    '5 €',
    '1,234.',
    '.',
    '1.2,3.4',
    '1 000,000,0',
    '9'.repeat(16),
    `0.${'1'.repeat(13)}`,
    '1'.repeat(50),
  ].map((each) => both(each, null)),
];

describe('numbers as they are written', () => {
  it.each(table)('%j is %j in English and %j in German', (typed, english, german) => {
    expect([asRead(typed, 'en'), asRead(typed, 'de')]).toEqual([english, german]);
  });

  it('written by the language itself are read as what they are, or asked about, never as another', () => {
    for (const [language, locale] of [
      ['en', 'en-GB'],
      ['de', 'de-DE'],
    ] as const) {
      fc.assert(
        fc.property(
          fc.integer({ min: -99_999_999, max: 99_999_999 }),
          fc.integer({ min: 0, max: 4 }),
          (units, decimals) => {
            const value = units / 10 ** decimals;
            const written = new Intl.NumberFormat(locale, { maximumFractionDigits: 4 }).format(value);
            const read = readWritten(written, language);
            const values =
              read.is === 'number'
                ? [Number(read.value)]
                : read.is === 'twoWays'
                  ? read.values.map(Number)
                  : [];
            expect(values).toContain(value === 0 ? 0 : value);
            // Only three digits behind a lone decimal sign leave a doubt.
            if (read.is === 'twoWays') expect(written).toMatch(/^-?\d{1,3}[.,]\d{3}$/);
          },
        ),
      );
    }
  });
});
