/** Rules as sentences: every rule reads back as itself, whatever it says and whatever things are called. */
import { describe, expect, it } from 'vitest';
import { written, parsed } from '../../formula';
import type { ModelDocument, Rule } from '../../model';
import { demoDocument } from '../../../../scripts/demo-documents';
import { chance } from '../testing';
import { expectedAt, isSameRule, readSentence, sentenceOf, wordsOf, type Language } from '.';
import { anyRule } from './testing';

const languages: readonly Language[] = ['en', 'de'];
const demo = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'];
const demoModels = (): ModelDocument[] => demo.map((id) => demoDocument(id));
const ridgeback = demoDocument('ridgeback');
const quarry = demoDocument('quarryGate');
const frame: Rule = { id: 'r', kind: 'say', when: 'true', severity: 'note', reason: {} };
const read = (text: string, document = ridgeback, language: Language = 'en', before: Rule = frame) =>
  readSentence(text, [wordsOf(document, language)], before);
const ruleOf = (text: string, document = ridgeback, language: Language = 'en'): Partial<Rule> => {
  const result = read(text, document, language);
  if (!result.ok)
    throw new Error(`${text}: ${result.problem.near} ${JSON.stringify(result.problem.expected)}`);
  return result.rule;
};

describe('a formula written from its tree', () => {
  it('is read as the same tree', () => {
    const random = chance(7);
    for (let turn = 0; turn < 1_000; turn++) {
      const rule = anyRule(ridgeback, random);
      for (const source of Object.values(rule).filter((each): each is string => typeof each === 'string')) {
        const tree = parsed(source);
        if (tree) expect(written(parsed(written(tree)) as typeof tree), source).toBe(written(tree));
      }
    }
  });
});

describe('the rules of the demo', () => {
  it.each(languages)('are good sentences in %s, without a formula among them', async (language) => {
    const lines = demoModels().flatMap((document) => {
      const words = wordsOf(document, language);
      return document.rules.map((rule) => {
        const sentence = sentenceOf(rule, words);
        expect(sentence.exact, rule.id).toBe(true);
        expect(sentence.pieces.map(({ text }) => text).join('')).toBe(sentence.text);
        expect(sentence.text).not.toContain('{');
        return `${document.id} ${rule.id}\n  ${sentence.text}`;
      });
    });
    await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot(`demo-sentences.${language}.txt`);
  });

  it('are read from either language, into the same rule', () => {
    for (const document of demoModels()) {
      const [english, german] = languages.map((language) => wordsOf(document, language));
      if (!english || !german) throw new Error('no words');
      for (const rule of document.rules) {
        const result = readSentence(sentenceOf(rule, german).text, [english, german], rule);
        expect(result.ok && isSameRule(result.rule, rule), rule.id).toBe(true);
      }
    }
  });
});

/** The document with every name put in place of another, so that many are alike or look like other words. */
function misnamed(document: ModelDocument, random: (below: number) => number): ModelDocument {
  const names = [
    'and', 'is', 'is taken', 'taken', 'not', 'not (x', '60 t', '60', 'Steel', 'Steel ramps', 'Steel ramps and Pit',
    'because', 'because: no', 'A, B', '{x}', '“x”', 'Pit', 'today', 'Beacon of Terminal', 'at least', 'ist', 'und',
    'Pit ist', 'oder', 'x', '×', 'the length of Pit', 'quantity', 'Pit (pit)', ' ', '',
  ]; // prettier-ignore
  const any = (): Record<string, string> => {
    const name = names[random(names.length)] ?? '';
    return { en: name, de: name };
  };
  return {
    ...document,
    features: document.features.map((feature) => ({
      ...feature,
      name: any(),
      options: feature.options.map((option) => ({ ...option, name: any() })),
    })),
    parameters: document.parameters.map((parameter) => ({ ...parameter, name: any() })),
    calculations: document.calculations.map((each) => ({ ...each, name: any() })),
  };
}

describe('random rules', () => {
  it.each([
    ['ridgeback', ridgeback],
    ['quarry gate', quarry],
  ])('of %s read back as themselves, and few need a formula', (_name, document) => {
    const random = chance(23);
    let formulas = 0;
    for (let turn = 0; turn < 600; turn++) {
      const rule = anyRule(document, random);
      for (const language of languages) {
        const sentence = sentenceOf(rule, wordsOf(document, language));
        expect(sentence.exact, `${JSON.stringify(rule)}\n${sentence.text}`).toBe(true);
        formulas += sentence.text.includes('{') ? 1 : 0;
      }
    }
    // Half of them are what no sentence has words for.
    expect(formulas).toBeLessThan(1_200 * 0.6);
  });

  it('never read as another rule, whatever things are called', () => {
    const random = chance(5);
    for (let turn = 0; turn < 500; turn++) {
      const document = misnamed(ridgeback, random);
      const rule = anyRule(document, random);
      for (const language of languages) {
        const words = wordsOf(document, language);
        const sentence = sentenceOf(rule, words);
        const result = readSentence(sentence.text, [words], rule);
        expect(sentence.exact, `${JSON.stringify(rule)}\n${sentence.text}`).toBe(
          result.ok && isSameRule(result.rule, rule),
        );
      }
    }
  });
});

describe('a sentence that is typed', () => {
  it('says each kind of rule', () => {
    const said: [string, Partial<Rule>][] = [
      ['it cannot be that mounting is pit while approach parts includes walkways',
        { kind: 'exclude', all: ['mounting = "pit"', 'list contains(approachParts, "walkways")'] }],
      ['When surface is concrete fill, capacity (worked out) must be at least 60 t, because: It bends.',
        { kind: 'require', when: 'surface = "concrete"', must: 'capacityMass >= 60', reason: { en: 'It bends.' } }],
      ['When mounting is relocatable frame deck length is at most 18 m',
        { kind: 'limit', of: 'deckLength', when: 'mounting = "frame"', most: '18' }],
      ['Load cells, junction box: these do not go together',
        { kind: 'table', of: ['cellKind', 'junctionBox'], listed: 'forbidden', rows: [] }],
      ['When load cells is digital, junction box follows as digital hub',
        { kind: 'set', of: 'junctionBox', when: 'cellKind = "digital"', value: 'hub', firm: true }],
      ['cable length is usually 2 x deck length + 3',
        { kind: 'usual', of: 'cable', value: { formula: '2 * deckLength + 3' } }],
      ['drain pump appears only when mounting is one of pit or half pit',
        { kind: 'show', of: 'drainPump', when: 'mounting in ["pit", "halfPit"]' }],
      ['warn when mounting is pit and drain pump is not taken: It fills with water.',
        { kind: 'say', when: 'mounting = "pit" and not(drainPump)', severity: 'warning' }],
    ]; // prettier-ignore
    for (const [text, rule] of said) expect(ruleOf(text), text).toMatchObject(rule);
    expect(ruleOf('Warn when at least 2 of (mounting is pit; drain pump is taken)')).toMatchObject({
      when: 'count([mounting = "pit", drainPump][item]) >= 2',
    });
  });

  it('says in German what must not be, as German does', () => {
    expect(
      ruleOf('Wenn Oberfläche Betonfüllung ist, darf Einbau nicht Grube sein', ridgeback, 'de'),
    ).toMatchObject({ kind: 'require', when: 'surface = "concrete"', must: 'mounting != "pit"' });
  });

  it('keeps what it does not say, and the text of a formula that says what it said', () => {
    const before: Rule = {
      id: 'kept',
      kind: 'table',
      of: ['surface', 'mounting'],
      rows: [['"plate"', '-']],
      listed: 'allowed',
      reason: { en: 'Old.', de: 'Alt.' },
      from: '2027-01-01',
      where: { region: ['eu'] },
    };
    const result = read(
      'Mounting, Finish, Surface: these do not go together, because: New.',
      ridgeback,
      'en',
      before,
    );
    expect(result.ok && result.rule).toEqual({
      ...before,
      of: ['mounting', 'finish', 'surface'],
      rows: [['-', '-', '"plate"']],
      listed: 'forbidden',
      reason: { en: 'New.', de: 'Alt.' },
    });
    const require: Rule = { id: 'r', kind: 'require', must: '( deckLength>=3 )', reason: {} };
    const same = read('Deck length must be at least 3 m', ridgeback, 'en', require);
    expect(same.ok && same.rule).toEqual(require);
  });

  it('says where it is not understood, and what could stand there', () => {
    const failed = (text: string) => {
      const result = read(text);
      if (result.ok) throw new Error(`read: ${text}`);
      return result.problem;
    };
    const unknown = failed('When surface is rubber, deck length is at most 3 m');
    expect([unknown.at, unknown.near.startsWith('rubber')]).toEqual([16, true]);
    expect(unknown.expected.some((each) => each.is === 'option' && each.of?.id === 'surface')).toBe(true);
    const unit = failed('When surface is concrete fill, deck length is at most 3 kg');
    expect([unit.near, unit.expected.some((each) => each.is === 'word' && each.text === 'm')]).toEqual([
      'kg',
      true,
    ]);
    expect(failed('When surface is concrete fill, mounting is pit').code).toBe('sentence.must');
    expect(failed('  ').code).toBe('sentence.empty');
    expect(failed('When surface is concrete fill').expected.length).toBeGreaterThan(0);
  });

  it('proposes what can stand where one types', () => {
    const words = wordsOf(ridgeback, 'en');
    const at = (text: string) => expectedAt(text, text.length, words, frame);
    const options = at('When surface is con');
    expect(options.from).toBe(16);
    const names = options.expected.flatMap((each) =>
      each.is === 'option' ? each.options.map(({ name }) => name) : [],
    );
    expect(names).toContain('Concrete fill');
    const following = at('When surface is concrete fill, junction box ').expected;
    expect(following.some((each) => each.is === 'word' && each.text === 'follows as')).toBe(true);
    expect(at('').expected.some((each) => each.is === 'row')).toBe(true);
  });

  it('takes no longer than a formula may', () => {
    const long = `When ${'(surface is concrete fill and '.repeat(300)}`;
    expect(read(long).ok).toBe(false);
    const many = `When ${Array.from({ length: 400 }, () => 'surface is concrete fill').join(' or ')}, mounting must be pit`;
    expect(read(many).ok).toBe(true);
    expect(read('x'.repeat(100_000)).ok).toBe(false);
  });
});
