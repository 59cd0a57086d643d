/** Typed numbers in the units people say, and the words of a model. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { demoModel } from '../../../scripts/demo-documents';
import { outlineOf } from '../../core/model';
import type { BuildContent } from '../../core/builds';
import { number, translator } from '../../i18n';
import { History } from './session/history';
import { lineToBuild, Saver, type Saved } from './session/saver';
import { shownUnit, shownValue, type Units } from '../../core/exact';
import { nearestAllowed, readTyped, type Steps } from './session/typed';
import { Words } from './words';

const asRead = (
  typed: string,
  unit: string,
  language = 'en',
  units: Units = 'metric',
  steps?: Steps,
): string | readonly string[] | null => {
  const read = readTyped(typed, unit, { language, units, ...(steps ? { steps } : {}) });
  return read.is === 'number' ? read.value : read.is === 'twoWays' ? read.values : null;
};

describe('typed numbers', () => {
  it.each([
    ['18', 'm', '18'],
    ['18 m', 'm', '18'],
    ['12,5', 'm', '12.5'],
    ['1800cm', 'm', '18'],
    ['1,800cm', 'm', '18'],
    ['1 800 cm', 'm', '18'],
    ['13500 mm', 'm', '13.5'],
    ['13,500 mm', 'm', '13.5'],
    ['59.0551181102 ft', 'm', '17.99999999998896'],
    ['10 FT', 'm', '3.048'],
    ['12 in', 'mm', '304.8'],
    [' -3 ', 'm', '-3'],
    ['44', 't', '44'],
    ['44 t', 't', '44'],
    ['44000 kg', 't', '44'],
    ['44,000 kg', 't', '44'],
    ['100 lb', 'kg', '45.359237'],
    ['2 t', 'kg', '2000'],
    ['10 ft 6 in', 'm', '3.2004'],
    ['10\' 6"', 'm', '3.2004'],
    ["10'", 'm', '3.048'],
    ['1 km', 'm', '1000'],
    ['1,234 ft 6 in', 'm', '376.2756'],
    ['96,000 kg', 'kg', '96000'],
    ['.5 m', 'm', '0.5'],
    ['2.5t', 'kg', '2500'],
    ['1,234.5 kg', 'kg', '1234.5'],
    ['1.234,5 kg', 'kg', '1234.5'],
  ])('"%s" in %s is %s in English', (typed, unit, expected) => {
    expect(asRead(typed, unit)).toBe(expected);
  });
  it.each([
    ['12,5', 'm', '12.5'],
    ['12.5', 'm', '12.5'],
    ['1.800 cm', 'm', '18'],
    ['1 800 cm', 'm', '18'],
    ['13.500 mm', 'm', '13.5'],
    ['44.000 kg', 't', '44'],
    ['96.000', 'kg', '96000'],
    ['100.000', 'kg', '100000'],
    ['0,75 t', 'kg', '750'],
    ['1.234,5', 'kg', '1234.5'],
    ['1,234.5', 'kg', '1234.5'],
    ['59 ft', 'm', '17.9832'],
    ['-3,5', 'm', '-3.5'],
    ['2,5 t', 'kg', '2500'],
    ["1'234 kg", 'kg', '1234'],
    ['−4', 'm', '-4'],
  ])('"%s" in %s is %s in German', (typed, unit, expected) => {
    expect(asRead(typed, unit, 'de')).toBe(expected);
  });
  it.each([
    ['100,000', 'kg', 'de', ['100', '100000']],
    ['60.000', 'kg', 'en', ['60', '60000']],
    ['1,000', '', 'de', ['1', '1000']],
    ['1.000', '', 'en', ['1', '1000']],
    ['13,500 mm', 'm', 'de', ['0.0135', '13.5']],
    ['13.500 mm', 'm', 'en', ['0.0135', '13.5']],
    ['2.500 t', 'kg', 'en', ['2500', '2500000']],
  ])('"%s" in %s could mean two things in "%s"', (typed, unit, language, expected) => {
    expect(asRead(typed, unit, language)).toEqual(expected);
  });
  it.each([
    ['', 'm'],
    ['long', 'm'],
    ['18 kg', 'm'],
    ['18 m', 't'],
    ['1.2.3', 'm'],
    ['1e3', 'm'],
    ['18 m 20', 'm'],
    ['--4', 'm'],
    ['½', 'm'],
    ['6 in 10 ft', 'm'],
    ['5 lb', ''],
    ['10 ft 6 lb', 'm'],
    ['1 ft 2 in 3', 'm'],
    ['1,23.4', 'm'],
    ['12 34', 'm'],
    ['1,2345,678', 'm'],
    ['5 pieces', ''],
    ['1.5 ft 2.125.5 in', 'm'],
  ])('"%s" in %s is none', (typed, unit) => {
    expect([asRead(typed, unit, 'en'), asRead(typed, unit, 'de')]).toEqual([null, null]);
  });

  const half = { least: '6', most: '30', step: '0.5' };
  it.each([
    ['59 ft', '18'],
    ['44 ft', '13.5'],
    ['44.3 ft', '13.5'],
    ['44.29 ft', '13.5'],
    ['44.1 ft', '13.44168'],
    ['59 ft 1 in', '18'],
    ['96 ft', '29.2608'],
    ['17.3 m', '17.3'],
    ['44,29 ft', '13.5'],
  ])('%s means %s m where it goes by half metres', (typed, expected) => {
    expect(asRead(typed, 'm', 'en', 'metric', half)).toBe(expected);
  });

  it.each([
    ['99995', [{ least: '50', most: '96000' }], ['96000']],
    [
      '99995',
      [
        { least: '50', most: '99990' },
        { least: '100010', most: '100200' },
      ],
      ['99990', '100010'],
    ],
    ['3.33', [{ least: '2.5', most: '4.2' }], ['3.3', '3.35']],
    [
      '18',
      [
        { least: '6', most: '17.5' },
        { least: '18.5', most: '30' },
      ],
      ['17.5', '18.5'],
    ],
    ['1', [{ least: '6', most: '30' }], ['6']],
    ['40', [{ least: '6', most: '30' }], ['30']],
    ['5', [], []],
    ['7', [{ least: '7', most: '7' }], ['7']],
  ])('for %s what can be had nearest is proposed, and nothing else', (typed, allowed, expected) => {
    const steps =
      typed === '3.33'
        ? { least: '2.5', step: '0.05' }
        : typed.length > 3
          ? { least: '50', step: '10' }
          : { least: '6', step: '0.5' };
    const offers = nearestAllowed(typed, allowed, steps);
    expect(offers).toEqual(expected);
    for (const offer of offers)
      expect(
        allowed.some(({ least, most }) => Number(least) <= Number(offer) && Number(offer) <= Number(most)),
      ).toBe(true);
  });

  it('are read and shown in the units of the person, and what is shown can be typed again', () => {
    expect([
      shownUnit('m', 'imperial'),
      shownUnit('t', 'imperial'),
      shownUnit('°C', 'imperial'),
      shownUnit('m', 'metric'),
    ]).toEqual(['ft', 'lb', '°C', 'm']);
    expect([
      shownValue('13.5', 'm', 'imperial'),
      shownValue('13.5', 'm', 'metric'),
      shownValue('304.8', 'mm', 'imperial'),
      shownValue('1000', 'kg', 'imperial'),
      shownValue('7', '', 'imperial'),
    ]).toEqual(['44.29', '13.5', '12', '2205', '7']);
    for (const language of ['en', 'de']) {
      const again = (value: string, steps: Steps, units: Units = 'imperial', unit = 'm') =>
        asRead(number(shownValue(value, unit, units), language, 12), unit, language, units, steps);
      for (let steps = 0; steps <= 48; steps++)
        expect(again(String(6 + steps / 2), half)).toBe(String(6 + steps / 2));
      const width = { least: '2.5', most: '4.2', step: '0.05' };
      for (let steps = 0; steps <= 34; steps++)
        expect(again(((250 + 5 * steps) / 100).toString(), width)).toBe(((250 + 5 * steps) / 100).toString());
      const mass = { least: '50', most: '100000', step: '10' };
      for (let value = 50; value <= 100_000; value += 1_370)
        expect(again(String(value), mass, 'metric', 'kg')).toBe(String(value));
    }
  });
});

describe('the steps of a build', () => {
  const store = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => void store.set(key, value),
  });
  beforeEach(() => store.clear());
  const content = (...values: string[]): BuildContent => ({
    decisions: values.map((value) => ({ on: value, value })),
    passed: [],
    special: [],
  });
  const saidIn = (made: BuildContent | null) => made?.decisions.map((each) => each.on).join('');

  it('go back and forth, and are still there after a reload', () => {
    const first = new History('x', 1, content());
    first.add(content('a'));
    const last = first.add(content('a', 'b'));
    first.saved(3, last);
    expect([first.canUndo, first.canRedo, saidIn(first.undo()), saidIn(first.undo()), first.undo()]).toEqual([
      true,
      false,
      'a',
      '',
      null,
    ]);
    expect([saidIn(first.redo()), saidIn(first.redo()), first.redo()]).toEqual(['a', 'ab', null]);
    first.saved(5, first.now);
    const second = new History('x', 5, content('a', 'b'));
    expect([second.unsaved, saidIn(second.undo()), second.canRedo]).toEqual([false, 'a', true]);
  });
  it('are fifty at most, and a new one ends the way forward', () => {
    const history = new History('x', 1, content());
    for (let index = 0; index < 60; index++) history.add(content(String(index)));
    let back = 0;
    while (history.undo()) back += 1;
    expect([back, saidIn(history.now)]).toEqual([50, '9']);
    history.add(content('new'));
    expect(history.canRedo).toBe(false);
  });
  it('bring back what the server never got, unless somebody else went on', () => {
    const closed = new History('x', 4, content());
    closed.add(content('a'));
    closed.write();
    expect([new History('x', 4, content()).unsaved, saidIn(new History('x', 4, content()).now)]).toEqual([
      true,
      'a',
    ]);
    // The server had the step before already, but the page did not hear of it.
    expect([new History('x', 5, content()).unsaved, saidIn(new History('x', 5, content()).now)]).toEqual([
      true,
      'a',
    ]);
    // The page was made before the server had the last step, and opened after this browser heard that it has.
    const heard = new History('y', 4, content());
    heard.saved(5, heard.add(content('b')));
    const older = new History('y', 4, content());
    expect([
      older.unsaved,
      saidIn(older.now),
      older.base,
      older.has(content()),
      older.has(content('q')),
    ]).toEqual([true, 'b', 5, true, false]);
    const theirs = new History('x', 5, content('z'));
    expect([theirs.unsaved, saidIn(theirs.now), theirs.canUndo]).toEqual([false, 'z', false]);
  });
  it('are nothing to others', () => {
    const mine = new History('x', 1, content());
    mine.add(content('a'));
    mine.write();
    expect([new History('x', 1, content()).canUndo, new History('y', 1, content()).canUndo]).toEqual([
      true,
      false,
    ]);
  });
});

describe('saving', () => {
  const content = (value: string): BuildContent => ({
    decisions: [{ on: value, value }],
    passed: [],
    special: [],
  });
  const answers = (...given: [status: number, body: unknown][]) => {
    const asked: { method: string; version?: number; on?: string }[] = [];
    vi.stubGlobal('fetch', async (_path: string, { method, body }: { method: string; body?: string }) => {
      const sent =
        body === undefined
          ? undefined
          : (JSON.parse(body) as { version: number; decisions: { on: string }[] });
      asked.push({ method, ...(sent ? { version: sent.version, on: sent.decisions[0]?.on ?? '' } : {}) });
      const [status, answer] = given.shift() ?? [500, null];
      await Promise.resolve();
      return new Response(JSON.stringify(answer), { status });
    });
    return asked;
  };
  const send = (saver: Saver, value: string) =>
    new Promise<Saved>((tell) => {
      saver.send(content(value), tell);
    });
  const stale = { failures: [{ code: 'build.stale', message: 'Somebody else changed it.' }] };

  it('goes on with the version that the server gave', async () => {
    const asked = answers([200, { version: 2 }], [200, { version: 3 }]);
    const saver = new Saver(lineToBuild('x'), 1, () => true);
    expect([await send(saver, 'a'), await send(saver, 'b')]).toMatchObject([
      { state: 'saved', version: 2 },
      { state: 'saved', version: 3 },
    ]);
    expect(asked).toEqual([
      { method: 'PUT', version: 1, on: 'a' },
      { method: 'PUT', version: 2, on: 'b' },
    ]);
  });
  it('goes on from a step of its own that it did not hear of', async () => {
    const asked = answers(
      [409, stale],
      [200, { build: { version: 7 }, content: content('a') }],
      [200, { version: 8 }],
    );
    expect(
      await send(new Saver(lineToBuild('x'), 6, (found) => found.decisions[0]?.on === 'a'), 'b'),
    ).toMatchObject({
      state: 'saved',
      version: 8,
    });
    expect(asked).toEqual([
      { method: 'PUT', version: 6, on: 'b' },
      { method: 'GET' },
      { method: 'PUT', version: 7, on: 'b' },
    ]);
  });
  it('gives way to what somebody else made, and to what cannot be changed', async () => {
    answers(
      [409, stale],
      [200, { build: { version: 7 }, content: content('z') }],
      [409, stale],
      [200, { build: { version: 6 }, content: content('a') }],
    );
    const saver = new Saver(lineToBuild('x'), 6, (found) => found.decisions[0]?.on === 'a');
    expect([await send(saver, 'b'), await send(saver, 'c')]).toMatchObject([
      { state: 'refused' },
      { state: 'refused', refusals: stale.failures },
    ]);
  });
  it('sends only the newest of what is made meanwhile', async () => {
    const asked = answers([200, { version: 2 }], [200, { version: 3 }]);
    const saver = new Saver(lineToBuild('x'), 1, () => true);
    const [first] = [send(saver, 'a'), send(saver, 'b')];
    await Promise.all([first, send(saver, 'c')]);
    await saver.idle();
    expect(asked.map(({ on }) => on)).toEqual(['a', 'c']);
  });
});

describe('words', () => {
  const document = outlineOf(demoModel('ridgeback'));
  const [english, german] = [
    new Words(document, translator('en'), 'en'),
    new Words(document, translator('de'), 'de'),
  ];

  it('name rows, options and what a decision is about', () => {
    expect([
      english.row('mounting'),
      german.row('mounting'),
      english.option('mounting', 'pit'),
      german.option('mounting', 'pit'),
    ]).toEqual(['Mounting', 'Einbau', 'Pit', 'Grube']);
    expect([
      english.subject('mounting'),
      english.subject('approachParts.steelRamps'),
      english.row('deckMass'),
    ]).toEqual(['Mounting', 'Steel ramps (pair)', 'Deck mass']);
    expect([english.row('colour'), english.option('mounting', 'roof')]).toEqual(['colour', 'roof']);
  });

  it('write values of every kind', () => {
    expect([
      english.value('mounting', 'pit'),
      english.value('customLength', '13.5'),
      german.value('customLength', '13.5'),
      english.value('calibrations', '2'),
    ]).toEqual(['Pit', '13.5 m', '13,5 m', '2']);
    expect(english.value('approachParts', ['steelRamps', 'barrier'])).toBe('Steel ramps (pair), Barrier');
    const t = translator('en');
    expect([
      english.value('guards', true),
      english.value('guards', false),
      english.value('mounting', undefined),
      english.value('approachParts', []),
    ]).toEqual([t('bench.yes'), t('bench.no'), t('bench.open'), t('bench.nothing')]);
  });

  it('tell causes as sentences', () => {
    expect(
      english.cause({
        kind: 'rule',
        rule: 'pitRamps',
        reason: { en: 'A pit sits level.', de: 'Eine Grube ist eben.' },
      }),
    ).toBe('A pit sits level.');
    expect(
      german.cause({
        kind: 'rule',
        rule: 'pitRamps',
        reason: { en: 'A pit sits level.', de: 'Eine Grube ist eben.' },
      }),
    ).toBe('Eine Grube ist eben.');
    expect(english.cause({ kind: 'decision', decision: { on: 'mounting', value: 'pit' } })).toBe(
      'You chose Mounting: Pit.',
    );
    expect(english.cause({ kind: 'shape', row: 'approachParts' })).toContain('Approach parts');
  });
});
