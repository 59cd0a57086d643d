/** Part numbers there and back, and what a wrong one is told. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { createEngine, readNumber, type Decision, type Engine } from '../engine';
import { compileModel, type ModelDocument } from '../model';
import { checkCharacter, partNumber, registeredDecisions, sequenceKey } from './index';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 20261124) });
const document = demoDocument('ridgeback');
function engineOf(given: ModelDocument, region = 'uk'): Engine {
  const compiled = compileModel(given);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return createEngine(compiled.model, { date: '2026-06-01', values: { region } });
}
const engine = engineOf(document);
const checked = engineOf({ ...document, numbering: [...document.numbering, { kind: 'check', before: '.' }] });

/** A complete build reached by free decisions, drawn by numbers. */
function buildBy(draws: readonly number[]): {
  decisions: Decision[];
  values: ReturnType<Engine['state']>['values'];
} {
  let decisions: Decision[] = [
    { on: 'vehicle', value: 'rigid' },
    { on: 'length', value: 'm12' },
  ];
  for (const draw of draws) {
    const { rows } = engine.state({ decisions });
    const free = document.features.flatMap((feature) =>
      (rows[feature.id]?.shown ? (rows[feature.id]?.options ?? []) : [])
        .filter((option) => option.standing === 'free' && option.id !== 'custom')
        .map((option): Decision =>
          feature.most > 1
            ? { on: `${feature.id}.${option.id}`, value: true }
            : { on: feature.id, value: option.id },
        ),
    );
    const next = free[draw % free.length] as Decision;
    decisions = [...decisions.filter((each) => each.on !== next.on), next];
  }
  return { decisions, values: engine.state({ decisions }).values };
}

describe('reading back', () => {
  it('gives a build with the same number, and the same values wherever a segment says them', () => {
    const said = [
      'capacity',
      'width',
      'surface',
      'mounting',
      'cellKind',
      'dust',
      'finish',
      'approval',
      'approachParts',
      'length',
    ];
    fc.assert(
      fc.property(fc.array(fc.nat(999), { maxLength: 8 }), (draws) => {
        const { values } = buildBy(draws);
        const { text, complete } = partNumber(engine.model, values, 12);
        expect(complete).toBe(true);
        const read = readNumber(engine, text, (number) =>
          number === 12 ? registeredDecisions(sequenceKey(engine.model, values) ?? '') : [],
        );
        if (read.is !== 'build') throw new Error(`${text}: ${JSON.stringify(read)}`);
        const back = engine.state({ decisions: read.decisions }).values;
        expect(partNumber(engine.model, back, 12).text).toBe(text);
        expect(sequenceKey(engine.model, back)).toBe(sequenceKey(engine.model, values));
        for (const row of said) expect([row, back[row]]).toEqual([row, values[row]]);
      }),
      { numRuns: 60 },
    );
  });

  it('reads the number of the scenario', () => {
    const read = readNumber(engine, 'RB-060-180-B-P-S-D-0-G-O/RLT');
    expect(
      read.is === 'build' && Object.fromEntries(read.decisions.map(({ on, value }) => [on, value])),
    ).toMatchObject({
      capacity: 'c60',
      length: 'm18',
      width: 'w32',
      surface: 'plate',
      mounting: 'surface',
      cellKind: 'digital',
      dust: 'none',
      finish: 'galvanised',
      approval: 'oiml',
      'approachParts.steelRamps': true,
      'approachParts.guideRails': true,
      'approachParts.trafficLights': true,
      'approachParts.barrier': false,
    });
  });

  it('finds the custom length behind a length that no standard has', () => {
    const read = readNumber(engine, 'RB-060-135-A-P-S-D-0-3-O');
    expect(read.is === 'build' && read.decisions).toEqual(
      expect.arrayContaining([
        { on: 'length', value: 'custom' },
        { on: 'customLength', value: '13.5' },
      ]),
    );
  });

  it('asks the register what a registered number stands for', () => {
    const asked: number[] = [];
    const read = readNumber(engine, 'RB-060-120-X0007-P-S-D-0-3-O', (sequence) => {
      asked.push(sequence);
      return [{ on: 'customWidth', value: '3.35' }];
    });
    expect(asked).toEqual([7]);
    expect(read).toMatchObject({ is: 'build', sequence: 7 });
    expect(read.is === 'build' && read.decisions).toContainEqual({ on: 'customWidth', value: '3.35' });
  });

  it.each([
    ['RX-060-180-B-P-S-D-0-G-O', 0, undefined, ['RB']],
    ['RB-070-180-B-P-S-D-0-G-O', 3, 'capacity', ['030', '040', '060', '080', '100']],
    ['RB-060-18-B-P-S-D-0-G-O', 9, 'deckLength', ['0-9']],
    ['RB-060-180-Q-P-S-D-0-G-O', 11, 'width', ['A', 'B', 'C', 'X']],
    ['RB-060-180-B-P-S-D-0-G-Z', 23, 'approval', ['N', 'O', 'T']],
    ['RB-060-180-B-P-S-D-0-G-O/TR', 26, 'approachParts/walkways/quantity', ['0-9']],
  ])('%s: wrong at character %i', (text, at, row, allowed) => {
    const read = readNumber(engine, text);
    if (read.is !== 'unreadable') throw new Error(read.is);
    expect([read.at, read.row]).toEqual([at, row]);
    expect(read.allowed).toEqual(expect.arrayContaining(allowed));
  });

  it('tells a number that can be read from one that can be built', () => {
    // A pit with ramps.
    expect(readNumber(engine, 'RB-060-180-B-P-P-D-0-G-O/R').is).toBe('forbidden');
    expect(readNumber(engine, 'RB-060-180-B-P-S-D-0-G-T').is).toBe('forbidden');
  });
});

describe('the check character', () => {
  const written = fc.stringMatching(/^[0-9A-Z]{2,20}$/);

  it('is that of the standard', () => {
    expect(checkCharacter('A1-2425G-ABC1234002')).toBe('M');
  });

  it('finds every single slip, and nearly every swap of different neighbours', () => {
    let [swaps, missed] = [0, 0];
    fc.assert(
      fc.property(
        written,
        fc.nat(),
        fc.constantFrom(...'0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'.split('')),
        (text, place, other) => {
          const at = place % (text.length - 1);
          const slip = text.slice(0, at) + other + text.slice(at + 1);
          if (slip !== text) expect(checkCharacter(slip)).not.toBe(checkCharacter(text));
          const [a = '', b = ''] = text.slice(at, at + 2);
          if (a === b) return;
          swaps++;
          if (checkCharacter(text.slice(0, at) + b + a + text.slice(at + 2)) === checkCharacter(text))
            missed++;
        },
      ),
      { numRuns: 2_000 },
    );
    expect(missed / swaps).toBeLessThan(0.02);
  });

  it('closes a part number once nothing before it is open, and guards it when read', () => {
    const open = partNumber(checked.model, checked.state({ decisions: [] }).values);
    expect(open.text.endsWith('.·')).toBe(true);
    const { values } = checked.state({
      decisions: [
        { on: 'vehicle', value: 'articulated' },
        { on: 'length', value: 'm18' },
        { on: 'terminals', value: null },
      ],
    });
    const { text } = partNumber(checked.model, values);
    expect(text.slice(0, -2)).toBe(partNumber(engine.model, values).text);
    expect(readNumber(checked, text).is).toBe('build');
    const slipped = text.replace('-180-', '-120-');
    expect(readNumber(checked, slipped)).toMatchObject({
      is: 'unreadable',
      at: text.length - 1,
      allowed: [checkCharacter(slipped.slice(0, -1))],
    });
  });
});
