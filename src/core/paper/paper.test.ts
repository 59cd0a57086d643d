import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compose,
  conditionProblems,
  figuresIn,
  fitOf,
  plainComposition,
  plainRich,
  readRich,
  richProblems,
  richWords,
  unreadPlaceholders,
  workedOut,
  type Composition,
  type PaperGiven,
  type TemplateContent,
  type Words,
} from '.';
import { exact } from '../exact';
import { filled } from './placeholders';
import { paperNames } from './scope';
import { lineGiven, paperGiven } from './testing';

/** Words that say which they are, so that what is said can be told from what is given. */
const words: Words = {
  say: (word, params) => [word, ...Object.values(params ?? {})].join(' '),
  amount: (value) => Number(value).toFixed(2),
  number: (value) => value,
  percent: (share) => `${String(Number(share) * 100)} %`,
  date: (day) => day,
  unit: (unit) => (unit === 'pc' ? '' : unit),
  own: (texts) => texts.en ?? '',
  yes: 'yes',
  no: 'no',
};
const usual = plainComposition({ language: 'en', paper: 'A4' });
const made = (given: PaperGiven, change: Partial<Composition> = {}, texts = {}) =>
  compose({ given, composition: { ...usual, ...change }, texts, words });
const said = (document: object): string => JSON.stringify(document);

describe('placeholders', () => {
  const filling = { given: paperGiven(2), line: null, words };

  it('are filled by what the quote says', () => {
    const text =
      'For {customer.name} until {quote.validUntil}: {quote.net} in {count(lines.items)} items, {{as is}}';
    expect(filled(text, filling)).toBe(
      `For Callowhill Quarries Ltd until 2027-01-04: ${Number(filling.given.totals.net).toFixed(2)} in 2 items, {as is}`,
    );
    expect(filled('{if quote.taxed then "taxed" else "not"} {quote.date + duration("P7D")}', filling)).toBe(
      'taxed 2026-11-12',
    );
  });

  it('read of a line only where they stand under one', () => {
    expect(richProblems(plainRich('{line.leadTime}'), 'document')).toHaveLength(1);
    expect(richProblems(plainRich('{line.leadTime}'), 'line')).toEqual([]);
    expect(filled('{line.leadTime} days', { ...filling, line: lineGiven(1) })).toBe('5 days');
  });

  it.each([
    ['{quote.nothing}', 'document'],
    ['{customer}', 'document'],
    ['{quote.validUntil + 3}', 'document'],
    ['{1 +}', 'document'],
    ['never closed {quote.net', 'document'],
    ['{}', 'document'],
  ] as const)('%s is told of when it is written, at its character, and leaves a gap', (text, place) => {
    const problems = richProblems(plainRich(text), place);
    expect(problems.length).toBeGreaterThan(0);
    expect(problems[0]?.at).toBeGreaterThanOrEqual(text.indexOf('{'));
    expect(filled(text, filling)).toBe(text.slice(0, text.indexOf('{')));
    expect(unreadPlaceholders(text, place)).toHaveLength(1);
  });

  it('have a value for every name there is', () => {
    for (const name of paperNames('line'))
      expect([name, richProblems(plainRich(`{${name}}`), 'line')]).toEqual([name, []]);
  });

  it('never throw, whatever is written', () => {
    const pieces = fc.constantFrom('{', '}', '{{', '"', 'quote.net', 'a', ' ', '\\', '+', 'if ', '(', ')');
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 14 }), (parts) => {
        const text = parts.join('');
        richProblems([{ is: 'paragraph', spans: [{ text }] }], 'document');
        expect(typeof filled(text, filling)).toBe('string');
      }),
    );
  });

  it('stand in conditions of blocks, which are checked as they are written', () => {
    expect(conditionProblems('quote.net > 1000 and list contains(lines.kinds, "part")')).toEqual([]);
    expect(conditionProblems('quote.net')[0]?.code).toBe('formula.resultType');
    const only = (when: string) =>
      said(
        made(paperGiven(2), {
          blocks: [{ key: 'terms', kind: 'terms', on: true, when, text: '', own: null }],
        }).blocks,
      );
    expect(only('list contains(lines.kinds, "part")')).toContain('terms GBP');
    expect(only('list contains(lines.kinds, "software")')).toBe('[]');
    expect(only('quote.nothing = 1')).toBe('[]');
  });
});

describe('rich text', () => {
  it('keeps paragraphs, lists, bold, italic and links that lead somewhere, and nothing else', () => {
    const given = [
      {
        is: 'paragraph',
        spans: [{ text: 'a\u0007b', bold: true, color: 'red', link: 'javascript:alert(1)' }],
        html: '<b>',
      },
      { is: 'list', ordered: 1, items: [[{ text: 'c', italic: true, link: 'https://harrowmoor.example' }]] },
    ];
    expect(readRich(given)).toEqual([
      { is: 'paragraph', spans: [{ text: 'ab', bold: true }] },
      {
        is: 'list',
        ordered: false,
        items: [[{ text: 'c', italic: true, link: 'https://harrowmoor.example' }]],
      },
    ]);
  });

  it.each([
    ['a text', 'x'],
    ['markup', [{ is: 'html', text: '<script>' }]],
    ['spans that are none', [{ is: 'paragraph', spans: 'x' }]],
    ['a megabyte', [{ is: 'paragraph', spans: [{ text: 'x'.repeat(1_000_000) }] }]],
    ['too many paragraphs', Array.from({ length: 2_000 }, () => ({ is: 'paragraph', spans: [] }))],
  ])('%s is none', (_, given) => {
    expect(readRich(given)).toBeNull();
  });

  it('of any text reads back as its words', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (text) => {
        const rich = plainRich(text);
        expect(readRich(rich)).not.toBeNull();
        expect(richWords(rich).split('\n').filter(Boolean)).toEqual(
          text
            .split(/\n+/)
            .map((each) => each.trim())
            .filter(Boolean),
        );
      }),
    );
  });
});

describe('a composed document', () => {
  it('has its blocks in the order chosen, and none that is off or has nothing to say', () => {
    const order = ['lines', 'letterHead', 'closing', 'lease', 'alternatives'].map((key) => ({
      key,
      kind: key as 'lines',
      on: key !== 'closing',
      when: '',
      text: '',
      own: null,
    }));
    expect(made(paperGiven(1), { blocks: order }).blocks.map(({ key }) => key)).toEqual([
      'lines',
      'letterHead',
    ]);
  });

  it('says for random lines figures that can be worked out from those beside them', () => {
    const anyLine = fc.record({
      quantity: fc.integer({ min: 1, max: 500 }),
      optional: fc.boolean(),
      group: fc.constantFrom(null, 'A', 'B'),
    });
    fc.assert(
      fc.property(
        fc.array(anyLine, { minLength: 1, maxLength: 12 }),
        fc.constantFrom('line', 'sum', 'none'),
        (rows, discounts) => {
          const given = paperGiven(rows.map((row, at) => lineGiven(at + 1, row)));
          const document = made(given, { lines: { ...usual.lines, discounts: discounts as 'line' } });
          const figures = figuresIn(document);
          for (const figure of figures.values()) {
            const comes = workedOut(figure, figures);
            if (comes)
              expect([figure.id, comes.toString()]).toEqual([figure.id, exact(figure.value).toString()]);
          }
          const counted = rows.some(({ optional }) => !optional);
          if (counted) expect(figures.get('sums.net')?.works).toBeDefined();
        },
      ),
      { numRuns: 60 },
    );
  });

  it('carries over what was printed, which in the end is the sum of the lines', () => {
    const table = made(paperGiven(30))
      .blocks.flatMap(({ nodes }) => nodes)
      .find((node) => node.is === 'table');
    const running = table?.is === 'table' ? table.rows.flatMap((row) => row.running ?? []) : [];
    expect(running).toHaveLength(30);
    expect(exact(running.at(-1) ?? '0').toString()).toBe(exact(paperGiven(30).totals.net).toString());
  });

  it('shows alternatives beside each other with what differs, and only that', () => {
    const build = (surface: string) => ({
      rows: [
        { row: 'length', section: 'deck', name: { en: 'Length' }, value: { en: '18 m' }, decided: true },
        { row: 'surface', section: 'deck', name: { en: 'Surface' }, value: { en: surface }, decided: true },
      ],
      sections: {},
      figures: [],
      inside: [],
      views: [],
    });
    const given = paperGiven([
      lineGiven(1, { alternativeSet: 's', build: build('Concrete') }),
      lineGiven(2, { alternativeSet: 's', alternative: true, insteadOf: 1, build: build('Grating') }),
    ]);
    const document = made(given);
    const beside = document.blocks.find(({ key }) => key === 'alternatives');
    expect(said(beside ?? {})).toMatch(/Surface.*Concrete.*Grating/);
    expect(said(beside ?? {})).not.toContain('Length');
    // It stands nowhere else, and not in the sums.
    const main = document.blocks.find(({ key }) => key === 'lines');
    expect(said(main ?? {})).not.toContain('SP-00002');
  });

  it('tells what recurs with its days, and a lease by its rate', () => {
    const price = {
      ...lineGiven(1).price,
      recurring: {
        baseMonths: 12,
        from: '2027-01-01',
        to: '2028-12-31',
        months: 24,
        days: 0,
        perMonth: '65',
        firstYear: '780',
      },
    };
    const given = paperGiven([lineGiven(1, { price })], {
      lease: { months: 36, yearlyRate: '0.054', inAdvance: true },
    });
    const document = made({ ...given, totals: { ...given.totals, recurring: '1560', oneTime: '10000' } });
    const over = document.blocks.find(({ key }) => key === 'recurring');
    expect(said(over ?? {})).toMatch(/Spare part 1.*2027-01-01.*2028-12-31.*65\.00/);
    const named = { ...given.lines[0], recurs: [{ name: { en: 'Licence' }, baseMonths: 12, start: null }] };
    expect(said(made(paperGiven([lineGiven(1, { ...named, price })])).blocks)).toMatch(/Licence \(line 1\)/);
    expect(over?.nodes.find(({ is }) => is === 'timeline')).toMatchObject({
      from: '2027-01-01',
      to: '2028-12-31',
      ticks: [{ at: '2027-01-01' }, { text: '2028' }],
    });
    expect(said(document.blocks.find(({ key }) => key === 'lease') ?? {})).toMatch(
      /lease 30\d\.\d\d GBP 36 inAdvance/,
    );
  });

  it('has nothing of a price where none is shown', () => {
    const given = paperGiven(3);
    const document = made(given, { lines: { ...usual.lines, prices: 'none' } });
    expect(figuresIn(document).size).toBe(3);
    expect(said(document)).not.toContain(given.totals.net);
  });

  it('writes for one quote alone what somebody wrote, and else what the house says', () => {
    const block = { key: 'closing', kind: 'closing', on: true, when: '', text: 'bye', own: null } as const;
    const texts = { bye: plainRich('Yours, {quote.owner}') };
    expect(said(made(paperGiven(1), { blocks: [block] }, texts).blocks)).toContain('Yours, Mara Lindqvist');
    const own = { ...block, own: plainRich('So long') };
    expect(said(made(paperGiven(1), { blocks: [own] }, texts).blocks)).toContain('So long');
    expect(said(made(paperGiven(1), { blocks: [{ ...block, text: 'gone' }] }, texts).blocks)).toContain(
      'regards',
    );
  });

  it('takes braces in the usual words for what they are', () => {
    const given = paperGiven(1);
    const document = made({ ...given, customer: { ...given.customer, contact: '{quote.net}' } });
    expect(said(document.blocks.find(({ key }) => key === 'opening') ?? {})).toContain('30 {quote.net} Mara');
  });
});

describe('a template', () => {
  const template: TemplateContent = {
    name: { en: 'A' },
    market: null,
    class: null,
    dealers: 'none',
    language: null,
    paper: null,
    colour: '#123456',
    mark: null,
    blocks: usual.blocks,
    lines: usual.lines,
    drawings: usual.drawings,
  };
  it.each([
    [{}, { dealer: null }, 0],
    [{ class: 'public' }, { dealer: null }, 2],
    [{ market: 'DE' }, { dealer: null }, 1],
    [{ class: 'key' }, { dealer: null }, null],
    [{ market: 'UK' }, { dealer: null }, null],
    [{}, { dealer: 'd' }, null],
    [{ dealers: 'any' }, { dealer: 'd' }, 0],
    [{ dealers: 'd' }, { dealer: 'd' }, 4],
    [{ dealers: 'e' }, { dealer: 'd' }, null],
    [{ dealers: 'any' }, { dealer: null }, null],
  ])('%j fits a quote %j by %s', (more, of, fit) => {
    expect(fitOf({ ...template, ...more }, { market: 'DE', class: 'public', ...of })).toBe(fit);
  });
});
