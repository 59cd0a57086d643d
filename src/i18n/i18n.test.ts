/** Figures as people read them, and locales that leave nothing out. */
import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sentence } from './sentence';
import { textBundles, textsOf } from './text-bundles';
import {
  date,
  hasText,
  keysIn,
  money,
  moneyDifference,
  moneyIn,
  number,
  own,
  percent,
  shift,
  translator,
} from './index';

type Tree = { [key: string]: string | Tree };
const leaves = (tree: Tree, path = ''): [string, string][] =>
  Object.entries(tree).flatMap(([key, value]) =>
    typeof value === 'string'
      ? [[`${path}${key}`, value] as [string, string]]
      : leaves(value, `${path}${key}.`),
  );
const placeholders = (text: string): string[] =>
  [...text.matchAll(/\{\{(\w+)\}\}/g)].map(([, name = '']) => name).sort();

const [en, de] = await Promise.all([textsOf('en', textBundles), textsOf('de', textBundles)]);

describe('what is wrong with a model or a formula', () => {
  const source = (path: string): string => readFileSync(new URL(`../core/${path}`, import.meta.url), 'utf8');
  const codes = [
    ...new Set(
      [
        'model/problem.ts',
        'formula/problem.ts',
        'model/schema.ts',
        'formula/syntax.ts',
        'formula/check.ts',
      ].flatMap((path) =>
        [...source(path).matchAll(/'((?:model|formula)\.\w+)'/g)].map(([, code = '']) => code),
      ),
    ),
  ];

  it.each(codes)('%s has its sentence in each language', (code) => {
    for (const language of ['en', 'de'])
      expect(sentence(language, code)).not.toBe(sentence(language, 'nothing like it'));
  });

  it('is told with its details', () => {
    expect(codes.length).toBeGreaterThan(35);
    expect(sentence('en', 'formula.unknownName', { name: 'hight' })).toBe('Nothing is called "hight" here.');
    expect(sentence('de', 'model.shape', { what: 'model.badDay' })).toBe(
      'Ein Tag wird wie 2026-06-01 geschrieben.',
    );
  });
});

describe('figures', () => {
  it.each([
    ['31382.35', 'en', '31,382.35'],
    ['31382.35', 'de', '31.382,35'],
    ['0.005', 'en', '0.01'],
    ['-80', 'en', '-80.00'],
    ['12345678901234.56', 'en', '12,345,678,901,234.56'],
  ])('%s in %s is written %s', (amount, language, expected) => {
    expect(money(amount, language)).toBe(expected);
  });

  it('keeps the decimals of the currency, and every digit of a long amount', () => {
    expect([money('1500', 'en', 0), money('1.2345', 'en', 3), moneyIn('5', 'GBP', 'en')]).toEqual([
      '1,500',
      '1.235',
      '5.00 GBP',
    ]);
    expect(money('9007199254740993.01', 'en')).toBe('9,007,199,254,740,993.01');
  });

  it('writes differences with their sign', () => {
    expect(['1240', '-80', '0', '-0.00'].map((amount) => moneyDifference(amount, 'en'))).toEqual([
      '+1,240.00',
      '−80.00',
      '±0',
      '±0',
    ]);
  });

  it('writes shares as percentages, numbers and days by language', () => {
    expect([percent('0.05', 'en'), percent('0.352359', 'de'), percent('-0.1', 'en')]).toEqual([
      '5 %',
      '35,24 %',
      '-10 %',
    ]);
    expect([number('21.53016', 'en', 1), number('0.5', 'de')]).toEqual(['21.5', '0,5']);
    expect(['en', 'en-US', 'de'].map((each) => date('2026-06-05', each))).toEqual([
      '05 Jun 2026',
      'Jun 05, 2026',
      '05. Juni 2026',
    ]);
    expect(money('31382.5', 'en-US')).toBe('31,382.50');
  });

  it('moves the decimal point exactly', () => {
    fc.assert(
      fc.property(
        fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n }),
        fc.nat(8),
        fc.nat(4),
        (digits, decimals, places) => {
          const text = (value: bigint, after: number): string => {
            const sign = value < 0n ? '-' : '';
            const padded = (value < 0n ? -value : value).toString().padStart(after + 1, '0');
            const fraction = padded.slice(padded.length - after).replace(/0+$/, '');
            return `${sign}${padded.slice(0, padded.length - after)}${after > 0 && fraction ? `.${fraction}` : ''}`;
          };
          const raised =
            decimals >= places
              ? text(digits, decimals - places)
              : text(digits * 10n ** BigInt(places - decimals), 0);
          expect(shift(text(digits, decimals), places)).toBe(raised);
        },
      ),
    );
  });
});

describe('texts', () => {
  const [english, german] = [new Map(leaves(en as Tree)), new Map(leaves(de as Tree))];

  it('are complete in both languages, with the same places to fill', () => {
    expect([...german.keys()]).toEqual([...english.keys()]);
    for (const [key, text] of english) {
      expect([key, text.trim().length > 0, (german.get(key) ?? '').trim().length > 0]).toEqual([
        key,
        true,
        true,
      ]);
      expect([key, placeholders(german.get(key) ?? '')]).toEqual([key, placeholders(text)]);
    }
  });

  it('do not shout', () => {
    for (const [key, text] of [...english, ...german])
      expect([key, text.includes('!')]).toEqual([key, false]);
  });

  it('are found by key, and a code without one is known to have none', () => {
    expect(translator('de')('bench.undo')).toBe(german.get('bench.undo'));
    expect(translator('fr')('bench.undo')).toBe(english.get('bench.undo'));
    expect([hasText('bench.undo'), hasText('bench'), hasText('bench.nothing.more'), hasText('none')]).toEqual(
      [true, false, false, false],
    );
  });

  it('name keys as the keyboard does', () => {
    expect([
      keysIn('Ctrl Z', 'de'),
      keysIn('Ctrl Shift Z', 'de'),
      keysIn('Ctrl Space', 'de'),
      keysIn('Ctrl Z', 'en'),
      keysIn('← →', 'de'),
    ]).toEqual(['Strg Z', 'Strg ⇧ Z', 'Strg Leertaste', 'Ctrl Z', '← →']);
  });
  it('of what is wrong with something typed are sentences', () => {
    const folder = new URL('../contract/', import.meta.url);
    const sources = readdirSync(folder).filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'));
    const codes = sources
      .flatMap((name) => [
        ...readFileSync(new URL(name, folder), 'utf8').matchAll(/'([a-zA-Z]+\.[a-zA-Z.]+)'/g),
      ])
      .map(([, code = '']) => code)
      .filter(hasText);
    expect(codes.length).toBeGreaterThan(40);
    for (const language of ['en', 'de'])
      for (const code of codes)
        expect([code, translator(language)(code)]).toEqual([code, expect.stringMatching(/\.$/)]);
  });
  it('of models come in the language, or in what there is', () => {
    expect([
      own({ en: 'Deck', de: 'Brücke' }, 'de'),
      own({ en: 'Deck' }, 'de'),
      own({ fr: 'Tablier' }, 'de'),
      own(undefined, 'de'),
    ]).toEqual(['Brücke', 'Deck', 'Tablier', '']);
  });
});
