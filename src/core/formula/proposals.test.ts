/** What is proposed while a formula is written: beside all formulas of the demo, and in places made for it. */
import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { demoModel } from '../../../scripts/demo-documents';
import { compileCell, compileFormula, readUnit, type Scope } from '.';
import { proposalsAt } from './proposals';

const models = readdirSync(new URL('../../../demo/models', import.meta.url)).map((file) =>
  demoModel(file.replace('.json', '')),
);

/** Every text of a document that is a formula in the scope of its top. */
function formulasOf(value: unknown, scope: Scope, found = new Set<string>()): Set<string> {
  if (typeof value === 'string' && value.length < 2_000 && /[="(]|^\w+$/.test(value)) {
    if (compileFormula(value, scope).ok) found.add(value);
  } else if (value !== null && typeof value === 'object')
    for (const [name, each] of Object.entries(value)) if (name !== 'library') formulasOf(each, scope, found);
  return found;
}

const texts = (source: string, at: number, scope: Scope, cell?: string): string[] | undefined =>
  proposalsAt(source, at, scope, cell)?.proposals.map(({ text }) => text);
/** At the mark. */
const at = (marked: string, scope: Scope, cell?: string) => {
  const place = marked.indexOf('|');
  return texts(marked.replace('|', ''), place, scope, cell);
};

describe('proposals', () => {
  it.each(models.map((model) => [model.document.id, model] as const))(
    'in all formulas of %s: every name, function, option and field that stands there is among them, while it is written',
    (_, { document, scope }) => {
      const formulas = formulasOf(document, scope);
      expect(formulas.size).toBeGreaterThan(4);
      let looked = 0;
      for (const source of formulas) {
        // Any place, however odd, has an answer.
        for (let place = 0; place <= source.length; place += 1) proposalsAt(source, place, scope);
        for (const word of source.matchAll(/"([^"]+)"|[a-zA-Z_]\w*/g)) {
          const [whole, quoted] = word;
          const text = quoted ?? whole;
          const begin = word.index + (quoted === undefined ? 0 : 1);
          const place = begin + Math.min(1, text.length);
          const found = proposalsAt(source, place, scope);
          if (quoted !== undefined && !found) continue;
          if (
            /^(and|or|if|then|else|in|return|satisfies|for|some|every|not|true|false|null|between)$/.test(
              text,
            )
          )
            continue;
          // A name that only this formula gives, and words of a longer function, are not proposed.
          if (new RegExp(`(?:for|some|every|,) ${text} in`).test(source)) continue;
          looked += 1;
          const all = found?.proposals.map((each) => each.text) ?? [];
          const fits = all.includes(text) || all.some((each) => each.split(' ').includes(text));
          expect([source, text, fits]).toEqual([source, text, true]);
          expect(source.slice(found?.from, found?.to).split(' ')).toContain(text);
        }
      }
      expect(looked).toBeGreaterThan(10);
    },
  );

  const scope: Scope = new Map([
    ['surface', { slot: 0, type: { is: 'text', of: new Set(['steel', 'concrete']) } }],
    ['ramps', { slot: 1, type: { is: 'list', item: { is: 'text', of: new Set(['front', 'back']) } } }],
    ['length', { slot: 2, type: { is: 'number', unit: readUnit('m') } }],
    ['wanted', { slot: 3, type: { is: 'date' } }],
    [
      'inside',
      {
        slot: 4,
        type: {
          is: 'places',
          many: true,
          places: [
            {
              when: { kind: 'literal', value: true, at: 0 },
              fields: new Map([
                ['mount', { slot: 5, type: { is: 'text', of: new Set(['post', 'wall']) } }],
                ['gone', { slot: 6, type: { is: 'yesno' }, absent: true }],
              ]),
            },
          ],
        },
      },
    ],
  ]);

  it.each([
    ['surface = "|', ['steel', 'concrete']],
    ['surface = "s|teel" and length > 2', ['steel', 'concrete']],
    ['surface in ("steel", "|', ['steel', 'concrete']],
    ['list contains(ramps, "|', ['front', 'back']],
    ['some r in ramps satisfies r = "|', ['front', 'back']],
    ['inside[1].|', ['mount']],
    ['some b in inside satisfies b.mount = "|', ['post', 'wall']],
    ['for b in inside return b.m|', ['mount']],
    ['wanted.|', ['year', 'month', 'day', 'weekday']],
  ])('%s', (marked, expected) => {
    expect(at(marked, scope)).toEqual(expected);
  });

  it.each(['length = "|', '"a" = "|', 'length > 1|', 'length.|', 'nothing.|'])(
    '%s: nothing to propose',
    (marked) => {
      expect(at(marked, scope) ?? []).toEqual([]);
    },
  );

  it('begins with values, and goes on with words', () => {
    expect(at('|', scope)).toEqual(expect.arrayContaining(['surface', 'ceiling', 'if', 'string length']));
    expect(at('surface = |', scope)?.slice(0, 3)).toEqual(['steel', 'concrete', 'surface']);
    expect(at('length > 2 |', scope)).toEqual(expect.arrayContaining(['and', 'or']));
    expect(at('length > 2 |', scope)).not.toContain('surface');
    expect(at('length > 2 and l|', scope)).toContain('length');
    expect(at('inside|', scope)).not.toContain('gone');
  });

  it('in a cell of a table, of what the column is about', () => {
    expect(at('"|', scope, 'surface')).toEqual(['steel', 'concrete']);
    expect(at('"steel", "|"', scope, 'surface')).toEqual(['steel', 'concrete']);
    expect(at('not("|")', scope, 'surface')).toEqual(['steel', 'concrete']);
    for (const option of ['steel', 'concrete'])
      expect(compileCell('surface', `"${option}"`, scope).ok).toBe(true);
  });

  it('replaces the whole word, and inside quotes up to the closing one', () => {
    expect(proposalsAt('sur and x', 2, scope)).toMatchObject({ from: 0, to: 3 });
    expect(proposalsAt('surface = "co"', 12, scope)).toMatchObject({ from: 11, to: 13 });
    expect(proposalsAt('surface = "co and x', 13, scope)).toMatchObject({ from: 11, to: 13 });
  });

  it('of 100 kB comes quickly enough not to be noticed, whatever they are', () => {
    for (const part of ['(', 'a ', '"', 'a.', 'for x in ', 'list contains(', '[']) {
      const source = part.repeat(Math.floor(100_000 / part.length));
      expect(() => proposalsAt(source, source.length, scope)).not.toThrow();
    }
  });
});

describe('what is wrong in a cell', () => {
  const scope: Scope = new Map([['surface', { slot: 0, type: { is: 'text', of: new Set(['steel']) } }]]);
  it.each(['"stel"', '"steel", "stel"', 'not("stel")', 'not( "steel", "stel")', 'not(not("stel"))'])(
    '%s: is told at its place in the cell',
    (cell) => {
      const compiled = compileCell('surface', cell, scope);
      expect(compiled).toMatchObject({
        ok: false,
        problems: [{ code: 'formula.unknownOption', at: cell.indexOf('"stel"') }],
      });
    },
  );
});
