/**
 * Drawings: what stands where follows from the build; views, triangles and files follow from what stands
 * there.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoModel } from '../../../scripts/demo-documents';
import { createEngine, type Decision } from '../engine';
import { compileModel, type CompiledModel, type ModelDocument } from '../model';
import {
  extentOf,
  meshOf,
  sceneKey,
  sceneOf,
  viewOf,
  withRoom,
  writeSvg,
  type Figure,
  type Scene,
  type Solid,
  type View,
} from './index';

const context = { date: '2026-06-01', values: { region: 'eu' } };
const decided = (text: string): Decision[] =>
  text
    .split(' ')
    .filter(Boolean)
    .map((each) => {
      const [on = '', value = ''] = each.split('=');
      return { on, value: value === 'yes' ? true : value === 'no' ? false : value };
    });
const drawn = (model: CompiledModel, decisions: string): Scene =>
  sceneOf(model, createEngine(model, context).state({ decisions: decided(decisions) }).values);
const ridgeback = demoModel('ridgeback');
const basic = 'vehicle=articulated capacity=c60 length=m18';
const some = (scene: Scene, id: string) =>
  scene.solids.filter((solid) => solid.id === id || solid.id.startsWith(`${id}.`));
const view = (model: CompiledModel, scene: Scene, id: string) =>
  viewOf(scene, id, model.document.drawing?.views.find((each) => each.id === id)?.from ?? 'front');

describe('the Ridgeback', () => {
  it('has a deck of its modules, on its cells', () => {
    const scene = drawn(ridgeback, basic);
    expect([some(scene, 'deckPlate').length, some(scene, 'cells').length, scene.waits]).toEqual([3, 8, []]);
    const deck = some(scene, 'deckPlate').map((solid) => extentOf(solid, 'x'));
    expect([deck[0]?.[0], deck[2]?.[1]]).toEqual([15, 17_985]);
    // The cells carry the deck: their upper ends meet its underside.
    expect(new Set(some(scene, 'cells').map((cell) => extentOf(cell, 'z')[1]))).toEqual(
      new Set([extentOf(some(scene, 'deckPlate')[0] as Solid, 'z')[0]]),
    );
  });

  it('follows each decision', () => {
    const [ramps, pit] = [
      drawn(ridgeback, `${basic} approachParts.steelRamps=yes`),
      drawn(ridgeback, `${basic} mounting=pit`),
    ];
    expect([
      some(ramps, 'steelRampWest').length,
      some(pit, 'steelRampWest').length,
      some(ramps, 'pitFloor').length,
      some(pit, 'pitFloor').length,
    ]).toEqual([1, 0, 0, 1]);
    const topOf = (scene: Scene) => extentOf(some(scene, 'deckPlate')[0] as Solid, 'z')[1];
    expect([topOf(ramps), topOf(pit)]).toEqual([500, 0]);
    const wide = drawn(ridgeback, `${basic} width=custom customWidth=3.85`);
    expect(view(ridgeback, wide, 'plan').dimensions.find((each) => each.id === 'widthPlan')).toMatchObject({
      length: 3850,
      of: 'width',
      upright: true,
    });
    expect(
      view(ridgeback, drawn(ridgeback, `${basic} surface=concrete`), 'side')
        .figures.filter((each) => each.id.startsWith('deckConcrete'))
        .map((each) => each.looks),
    ).toEqual(['concrete', 'concrete', 'concrete']);
  });

  it('shows the vehicle on the deck, its wheels on the plate, and a terminal of its own', () => {
    const scene = drawn(ridgeback, `${basic} terminals.beacon=yes terminals/beacon/1/housing=ip66`);
    expect(new Set(some(scene, 'articulatedWheels').map((wheel) => extentOf(wheel, 'z')[0]))).toEqual(
      new Set([500]),
    );
    expect(some(scene, 'miningWheels')).toEqual([]);
    expect(
      some(scene, 'terminals/beacon/1/wallBody').map((solid) => [solid.of, extentOf(solid, 'z')[0]]),
    ).toEqual([['terminals/beacon/1/housing', 1150]]);
  });

  it('says what it waits for, and leaves that out', () => {
    const scene = drawn(ridgeback, 'vehicle=rigid');
    expect(scene.waits).toContain('length');
    expect(some(scene, 'deckPlate')).toEqual([]);
  });

  it('is the same drawing where nothing drawn has changed', () => {
    const engine = createEngine(ridgeback, context);
    const key = (decisions: string) =>
      sceneKey(ridgeback, engine.state({ decisions: decided(decisions) }).values);
    expect(key(basic)).toBe(key(`${basic} warranty=y5 cable=40`));
    expect(key(basic)).not.toBe(key(`${basic} mounting=pit`));
    expect(key(basic)).not.toBe(key(`${basic} terminals/beacon/1/display=touch`));
  });
});

describe('the Beacon and the Plumb', () => {
  const corner = (figure: Figure | undefined): number =>
    figure?.kind === 'polygon' ? (figure.points[0]?.[0] ?? NaN) : NaN;

  it('front and back mirror each other', () => {
    const beacon = demoModel('beacon');
    const scene = drawn(beacon, 'interfaces.ethernet=yes plateText=GATE');
    const [front, back] = ['front', 'back'].map((id) => view(beacon, scene, id));
    const slot = (which: typeof front) => which?.figures.find((each) => each.id === 'slotEthernet');
    expect(corner(slot(front))).toBe(-corner(slot(back)));
    expect(corner(slot(front))).toBe(138);
    expect(front?.words.map((each) => each.text.en)).toContain('GATE');
    expect(back?.words.map((each) => each.text.en)).toEqual(['ETH']);
  });

  it('a vessel stands on its supports', () => {
    const plumb = demoModel('plumb');
    const scene = drawn(plumb, 'supports=s6 emptyMass=3000 contentsMass=20000 height=6 diameter=2.4');
    expect([some(scene, 'legs').length, some(scene, 'cells').length]).toEqual([6, 6]);
    expect(view(plumb, scene, 'side').dimensions.map((each) => [each.id, each.length])).toEqual([
      ['high', 6000],
      ['thick', 2400],
    ]);
  });
});

/**
 * The volume that triangles enclose; it comes out right only where every face looks outwards and none is
 * missing.
 */
function volumeOf(solid: Solid): number {
  const { positions: p } = meshOf(solid);
  let volume = 0;
  for (let at = 0; at < p.length; at += 9) {
    const [a, b, c, d, e, f, g, h, i] = p.slice(at, at + 9) as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    volume += (a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)) / 6;
  }
  return volume;
}

describe('triangles', () => {
  const length = fc.double({ min: 1, max: 5000, noNaN: true });
  const place = fc.tuple(
    fc.integer({ min: -500, max: 500 }),
    fc.integer({ min: -500, max: 500 }),
    fc.integer({ min: -500, max: 500 }),
  );
  const axis = fc.constantFrom<'x' | 'y' | 'z'>('x', 'y', 'z');
  const base = { id: 'a', layer: 'A', looks: 'steel' } as const;

  it('enclose a box', () => {
    fc.assert(
      fc.property(place, length, length, length, (at, x, y, z) => {
        expect(volumeOf({ ...base, kind: 'box', at, size: [x, y, z] }) / (x * y * z)).toBeCloseTo(1, 6);
      }),
      { seed: 7, numRuns: 60 },
    );
  });
  it('enclose a prism along each axis, whichever way its outline runs, hollow corners too', () => {
    fc.assert(
      fc.property(
        axis,
        length,
        fc.boolean(),
        fc.integer({ min: -300, max: 300 }),
        (along, deep, turned, from) => {
          const outline: [number, number][] = [
            [0, 0],
            [40, 0],
            [40, 10],
            [10, 10],
            [10, 30],
            [0, 30],
          ];
          expect(
            volumeOf({
              ...base,
              kind: 'prism',
              along,
              outline: turned ? [...outline].reverse() : outline,
              from,
              length: deep,
            }) /
              (600 * deep),
          ).toBeCloseTo(1, 6);
        },
      ),
      { seed: 7, numRuns: 60 },
    );
  });
  it('enclose a cylinder and a cone along each axis, but for the corners cut off', () => {
    const share = (Math.sin((2 * Math.PI) / 28) * 28) / (2 * Math.PI);
    fc.assert(
      fc.property(
        axis,
        place,
        fc.integer({ min: 5, max: 900 }),
        fc.integer({ min: 0, max: 900 }),
        length,
        (along, at, radius, radiusTo, deep) => {
          const exact = (Math.PI * deep * (radius ** 2 + radius * radiusTo + radiusTo ** 2)) / 3;
          expect(
            volumeOf({ ...base, kind: 'cylinder', along, at, radius, radiusTo, length: deep }) / exact,
          ).toBeCloseTo(share, 5);
        },
      ),
      { seed: 7, numRuns: 60 },
    );
  });
  it('have normals of length one', () => {
    const { normals } = meshOf({
      ...base,
      kind: 'cylinder',
      along: 'z',
      at: [0, 0, 0],
      radius: 5,
      radiusTo: 2,
      length: 9,
    });
    for (let at = 0; at < normals.length; at += 3)
      expect(Math.hypot(...normals.slice(at, at + 3))).toBeCloseTo(1, 9);
  });
});

describe('views', () => {
  const scene = (solids: Solid[]): Scene => ({ solids, labels: [], measures: [], waits: [] });
  const box = (id: string, at: [number, number, number]): Solid => ({
    id,
    layer: 'A',
    looks: 'steel',
    kind: 'box',
    at,
    size: [10, 20, 30],
  });

  it('show what is nearer over what is farther', () => {
    const two = scene([box('near', [0, -50, 0]), box('far', [0, 50, 100])]);
    const order = (from: 'front' | 'back' | 'above') => viewOf(two, 'v', from).figures.map((each) => each.id);
    expect([order('front'), order('back'), order('above')]).toEqual([
      ['far', 'near'],
      ['near', 'far'],
      ['near', 'far'],
    ]);
  });
  it('project each axis where it belongs', () => {
    const one = scene([box('a', [1, 2, 3])]);
    const corners = (from: 'front' | 'back' | 'above' | 'end') => {
      const { left, right, bottom, top } = viewOf(one, 'v', from).frame;
      return [left, right, bottom, top];
    };
    expect([corners('front'), corners('back'), corners('above'), corners('end')]).toEqual([
      [1, 11, 3, 33],
      [-11, -1, 3, 33],
      [1, 11, 2, 22],
      [2, 22, 3, 33],
    ]);
  });
  it('leave out what is meant for another view', () => {
    expect(viewOf(scene([{ ...box('a', [0, 0, 0]), views: ['plan'] }]), 'side', 'front').figures).toEqual([]);
  });
});

describe('the room of a dimension', () => {
  const ridgeback = demoModel('ridgeback');
  const side = view(ridgeback, drawn(ridgeback, 'vehicle=articulated length=m18'), 'side');
  const away = ({ leads: [lead], upright }: View['dimensions'][number]) =>
    Math.abs((lead?.[1][upright ? 0 : 1] ?? 0) - (lead?.[0][upright ? 0 : 1] ?? 0));
  it('holds letters of any height, measures the same, and stays in the frame', () => {
    for (const letter of [10, 100, 400, 1500]) {
      const { dimensions, frame } = withRoom(side, letter);
      expect(dimensions.map((each) => each.length)).toEqual(side.dimensions.map((each) => each.length));
      for (const each of dimensions) {
        expect(away(each)).toBeGreaterThanOrEqual(2.2 * letter - 1e-6);
        for (const [u, v] of each.line)
          expect(u >= frame.left && u <= frame.right && v >= frame.bottom && v <= frame.top).toBe(true);
      }
    }
  });
  it('stays as the model says where it is enough', () => {
    expect(withRoom(side, 1)).toEqual(side);
  });
});

describe('an SVG file', () => {
  it('is to scale, says what it measures, and lets no word become markup', () => {
    const beacon = demoModel('beacon');
    const svg = writeSvg(view(beacon, drawn(beacon, 'plateText=<b>&'), 'front'), {
      title: 'A & B',
      language: 'en',
      write: (length) => `${length.toFixed(0)} mm`,
    });
    expect(svg).toContain('<title>A &amp; B</title>');
    expect(svg).toContain('&lt;b&gt;&amp;');
    expect(svg).toContain('>320 mm</text>');
    const [, , , width, height] = /viewBox="([-\d.]+) ([-\d.]+) ([-\d.]+) ([-\d.]+)"/.exec(
      svg,
    ) as unknown as string[];
    expect(svg).toContain(`width="${width ?? ''}mm" height="${height ?? ''}mm"`);
  });
});

describe('a drawing that cannot be made', () => {
  const document = (change: (drawing: NonNullable<ModelDocument['drawing']>) => void): unknown => {
    const copy = structuredClone(demoModel('beacon').document);
    change(copy.drawing as NonNullable<ModelDocument['drawing']>);
    return copy;
  };
  const problems = (given: unknown) => {
    const result = compileModel(given);
    return result.ok ? [] : result.problems.map(({ path, code, at }) => [path, code, at]);
  };
  it('names the place', () => {
    expect(
      problems(
        document((drawing) => {
          (drawing.shapes[0] as { layer: string }).layer = 'AIR';
        }),
      ),
    ).toEqual([['drawing.deskBody.layer', 'model.unknownTarget', undefined]]);
    expect(
      problems(
        document((drawing) => {
          (drawing.dimensions[0] as { of: string }).of = 'girth';
        }),
      ),
    ).toEqual([['drawing.wide', 'model.unknownTarget', undefined]]);
    expect(
      problems(
        document((drawing) => {
          drawing.shapes.push(drawing.shapes[0] as never);
        }),
      ),
    ).toEqual([['drawing.deskBody', 'model.duplicateId', undefined]]);
  });
  it('and the position in a repeated formula as the modeller wrote it', () => {
    expect(
      problems(
        document((drawing) => {
          (drawing.shapes.find((shape) => shape.id === 'keys') as { at: string[] }).at = [
            '0',
            '0',
            '2 * thick',
          ];
        }),
      ),
    ).toEqual([['drawing.keys.at.2', 'formula.unknownName', 4]]);
  });
});
