/**
 * The demo's Ridgeback as a model: every figure is worked out by hand. That every rule fires is told by the
 * document's own tests.
 */
import { beforeAll, describe, expect, it } from 'vitest';
import { createEngine, type Decision, type Engine, type State } from '../engine';
import { making, leadDays } from '../production';
import { partNumber, sequenceKey } from '../numbering';
import { demoModel } from '../../../scripts/demo-documents';
import { type CompiledModel, type DecisionValue, Reading } from './index';

let model: CompiledModel;
const engines = new Map<string, Engine>();
const engineIn = (region: string): Engine => {
  const made = engines.get(region) ?? createEngine(model, { date: '2026-06-01', values: { region } });
  engines.set(region, made);
  return made;
};

beforeAll(() => {
  model = demoModel('ridgeback');
});

const decide = (values: Record<string, DecisionValue>): Decision[] =>
  Object.entries(values).map(([on, value]) => ({ on, value }));
const base = { vehicle: 'articulated', length: 'm12' };
const stateOf = (values: Record<string, DecisionValue>, region = 'uk'): State =>
  engineIn(region).state({ decisions: decide({ ...base, ...values }) });
const standing = (state: State, row: string, option: string) =>
  state.rows[row]?.options?.find((each) => each.id === option)?.standing;
describe('what shows, defaults, advice and messages', () => {
  it('shows the custom inputs only when they are chosen', () => {
    expect(stateOf({}).rows.customLength?.shown).toBe(false);
    const custom = stateOf({ length: 'custom' });
    expect(custom.rows.customLength).toMatchObject({
      shown: true,
      todo: true,
      allowed: [
        { least: '6', most: '7.5' },
        { least: '8.5', most: '11.5' },
        { least: '12.5', most: '14.5' },
        { least: '15.5', most: '17.5' },
        { least: '18.5', most: '23.5' },
        { least: '24.5', most: '30' },
      ],
    });
    expect(custom.complete).toBe(false);
    expect(stateOf({ width: 'custom' }).rows.customWidth?.shown).toBe(true);
    expect(stateOf({ cellKind: 'hydraulic' }).rows.junctionBox?.shown).toBe(false);
    expect(stateOf({ cellKind: 'digital' }).rows.booster?.shown).toBe(false);
    expect(stateOf({ mounting: 'halfPit' }).rows.drainPump?.shown).toBe(true);
  });

  it('keeps a custom length while a standard one is tried, and brings it back', () => {
    expect(stateOf({ length: 'm15', customLength: '13.5' }).rows.customLength?.shown).toBe(false);
    expect(stateOf({ length: 'custom', customLength: '13.5' }).rows.customLength).toMatchObject({
      value: '13.5',
      source: 'yours',
    });
  });

  it('narrows the allowed lengths exactly', () => {
    expect(stateOf({ length: 'custom', mounting: 'frame' }).rows.customLength?.allowed).toEqual([
      { least: '6', most: '7.5' },
      { least: '8.5', most: '11.5' },
      { least: '12.5', most: '14.5' },
      { least: '15.5', most: '17.5' },
    ]);
    expect(stateOf({ length: 'custom', 'approachParts.walkways': false }).rows.customLength?.allowed).toEqual(
      [
        { least: '6', most: '7.5' },
        { least: '8.5', most: '11.5' },
        { least: '12.5', most: '14.5' },
        { least: '15.5', most: '17.5' },
      ],
    );
    expect(stateOf({ vehicle: 'mining', width: 'custom' }).rows.customWidth?.allowed).toEqual([
      { least: '3.55', most: '4.2' },
    ]);
  });

  it('takes the smallest capacity and the smallest box that fit', () => {
    expect(stateOf({ vehicle: 'roadTrain' }).rows.capacity).toMatchObject({ value: 'c80', source: 'usual' });
    expect(stateOf({ vehicle: 'mining' }).rows.capacity).toMatchObject({ value: 'c100', source: 'follows' });
    expect(stateOf({ length: 'm24', cellKind: 'analogue' }).rows.junctionBox?.value).toBe('j10');
    expect(stateOf({ length: 'm12', cellKind: 'analogue' }).rows.junctionBox?.value).toBe('j6');
  });

  it('advises duplex in the cold, which a person may overrule', () => {
    expect(stateOf({ temperature: 'cold' }).rows.finish).toMatchObject({
      value: 'duplex',
      source: 'advised',
    });
    expect(stateOf({ temperature: 'cold', finish: 'c5' }).rows.finish).toMatchObject({
      value: 'c5',
      source: 'yours',
    });
  });

  it('settles nothing for a person that is theirs to choose', () => {
    const blank = engineIn('uk').state({ decisions: [] });
    expect(
      Object.values(blank.rows)
        .filter((row) => row.todo)
        .map((row) => row.id),
    ).toEqual(['vehicle', 'length']);
    expect(blank.rows.capacity).toMatchObject({ source: 'open', todo: false });
  });

  it('takes the network installation with Docket unless declined', () => {
    expect(stateOf({ docket: 'site' }).rows.network).toMatchObject({ value: true, source: 'usual' });
    expect(stateOf({ docket: 'site', network: false }).rows.network).toMatchObject({
      value: false,
      source: 'yours',
    });
  });

  it('adds the booster by itself on a long analogue cable', () => {
    expect(stateOf({ cellKind: 'analogue', cable: '80' }).rows.booster?.value).toBe(false);
    expect(stateOf({ cellKind: 'analogue', cable: '85' }).rows.booster).toMatchObject({
      value: true,
      source: 'follows',
    });
  });

  it('warns about a pit without a pump, and notes a heavy crane', () => {
    const said = (values: Record<string, DecisionValue>) =>
      stateOf(values).messages.map((message) => message.rule);
    expect(said({ mounting: 'pit' })).toEqual(['pitPump']);
    expect(said({ mounting: 'pit', drainPump: true })).toEqual([]);
    expect(
      said({ surface: 'concrete', vehicle: 'roadTrain', width: 'w35', length: 'm18', capacity: 'c100' }),
    ).toEqual(['heavyCrane']);
  });

  it('gives the fitting warranty default and keeps regions apart', () => {
    expect(stateOf({}, 'na').rows.approval).toMatchObject({ value: 'ntep' });
    expect(standing(stateOf({}, 'na'), 'approval', 'oiml')).toBe('barred');
    expect(standing(stateOf({ mounting: 'pit' }), 'approachParts', 'steelRamps')).toBe('swap');
  });
});

describe('ways out', () => {
  it('offers each smallest change, and what is chosen stays chosen', () => {
    const decisions = decide({ ...base, mounting: 'pit', finish: 'galvanised' });
    const ways = engineIn('uk').waysOut({ decisions }, { on: 'approachParts.steelRamps', value: true });
    expect(ways.map((way) => way.changes)).toEqual([
      [{ on: 'mounting', from: 'pit', to: 'surface' }],
      [{ on: 'mounting', from: 'pit', to: 'frame' }],
    ]);
    for (const way of ways) {
      expect(way.state.rows.finish).toMatchObject({ value: 'galvanised', source: 'yours' });
      expect(way.state.rows.approachParts?.value).toContain('steelRamps');
    }
  });
});

describe('calculations, numbers, materials', () => {
  const quarry = {
    vehicle: 'articulated',
    length: 'm18',
    width: 'w32',
    finish: 'galvanised',
    'approachParts.steelRamps': true,
    'approachParts.guideRails': true,
    'approachParts.trafficLights': true,
  };

  it('works out the figures of a quarry weighbridge', () => {
    const reading = new Reading(model, stateOf(quarry).values);
    const figure = (id: string) => String(reading.named(id));
    // 18 m / 6 m = 3 modules, 2 x (3 + 1) = 8 cells, 18 x 3.2 = 57.6 m2, 57.6 x 172 + 3 x (380 + 4 x 60) =
    // 11,767.2 kg
    expect([figure('modules'), figure('cells'), figure('area'), figure('deckMass')]).toEqual([
      '3',
      '8',
      '57.6',
      '11767.2',
    ]);
    // 1.2 x (60 + 11.7672) / 4 = 21.53016 t; 11,767.2 / 3 = 3,922.4 kg -> 25 t; 4 + 9 + 3 + 1.5 x 3 = 20.5 h
    expect([figure('cornerLoad'), figure('craneClass'), figure('installationHours')]).toEqual([
      '21.53016',
      '25 t',
      '20.5',
    ]);
  });

  it('builds the part number of the scenario', () => {
    const number = partNumber(model, stateOf({ ...quarry, terminals: null }).values);
    expect(number).toMatchObject({ text: 'RB-060-180-B-P-S-D-0-G-O/RLT', complete: true });
  });

  it('leaves dots for what is open and a registered number for a custom width', () => {
    const blank = partNumber(model, engineIn('uk').state({ decisions: [] }).values);
    expect(blank.text).toBe('RB-···-···-·-P-S-D-0-3-O/·+·');
    const custom = stateOf({ width: 'custom', customWidth: '3.35' }).values;
    expect(partNumber(model, custom)).toMatchObject({
      text: 'RB-060-120-X····-P-S-D-0-3-O',
      complete: false,
    });
    expect(partNumber(model, custom, 7).text).toBe('RB-060-120-X0007-P-S-D-0-3-O');
    expect(
      sequenceKey(model, stateOf({ width: 'custom', customWidth: '3.35', terminals: null }).values),
    ).toBe('customWidth=3.35;terminals=!');
    expect(sequenceKey(model, stateOf({ terminals: null }).values)).toBeNull();
    // A terminal stands with all that its own number tells of it.
    expect(sequenceKey(model, stateOf({ 'terminals/beacon/1/interfaces.ethernet': true }).values)).toMatch(
      /^terminals=beacon;terminals\/beacon\/quantity=1;terminals\/beacon\/1\/housing=desk;.*terminals\/beacon\/1\/interfaces\.ethernet=!true;/,
    );
  });

  it('lists materials with scrap and cut lengths, and operations with values filled in', () => {
    const { materials, operations, open } = making(model, stateOf(quarry).values);
    const of = (item: string) => materials.find((need) => need.item === item);
    expect(open).toEqual([]);
    // 4 beams x 18 m, 4 % scrap; each cut to a module of 6 m
    expect(of('RM-BEAM')).toMatchObject({ quantity: '74.88', cut: '6' });
    expect(of('RM-PLATE')?.quantity).toBe('61.056');
    expect(of('RB-CELL-D')?.quantity).toBe('8');
    expect(of('RM-PAN')).toBeUndefined();
    expect(operations.map((step) => step.row)).toEqual([
      'cutting',
      'welding',
      'finishing',
      'wiring',
      'adjusting',
      'packing',
      'terminals/beacon/1/assembly',
      'terminals/beacon/1/test',
    ]);
    expect(operations[1]).toMatchObject({
      setUp: '1',
      run: '13.512',
      hours: '14.512',
      text: { en: 'Weld 3 modules to drawing, surface Checker plate, capacity 60 t.' },
    });
    expect(operations[1]?.text.de).toBe(
      '3 Module nach Zeichnung schweißen, Oberfläche Tränenblech, Höchstlast 60 t.',
    );
  });

  it('adds the days of custom sizes and finish to the slowest item', () => {
    const facts = { 'RB-CELL-D': { leadDays: 10 }, 'RM-PLATE': { leadDays: 8 } };
    expect(leadDays(model, stateOf({}).values, facts)).toBe(10);
    expect(
      leadDays(model, stateOf({ length: 'custom', customLength: '9.5', finish: 'galvanised' }).values, facts),
    ).toBe(28);
    expect(leadDays(model, stateOf({ length: 'custom' }).values, facts)).toBeNull();
  });
});
