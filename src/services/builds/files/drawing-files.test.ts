/** Drawings as files, read back by readers that know nothing of how they were written. */
import { NodeIO } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { demoModel } from '../../../../scripts/demo-documents';
import { layersIn, sceneOf, viewOf, type View } from '../../../core/drawing';
import { createEngine } from '../../../core/engine';
import { writeDxf } from './dxf';
import { writeGlb } from './gltf';

const context = { date: '2026-11-28', values: { region: 'eu' } };
const drawn = ['ridgeback', 'quarryGate', 'plumb', 'beacon', 'tarn', 'farmDriveOver'].flatMap((id) => {
  const model = demoModel(id);
  const { drawing } = model.document;
  if (!drawing) return [];
  // Some complete build: of an empty one little can be drawn.
  const engine = createEngine(model, context);
  const found = engine.best({ decisions: [] }, { minimize: [] }, { budget: 20_000 });
  const { values } = engine.state({ decisions: found.is === 'found' ? found.decisions : [] });
  return [{ id, drawing, layers: layersIn(model), scene: sceneOf(model, values) }];
});
const views = drawn.flatMap(({ id, drawing, layers, scene }) =>
  drawing.views.map((view) => ({
    name: `${id}, ${view.id}`,
    layers,
    view: viewOf(scene, view.id, view.from),
  })),
);

/** A DXF file is pairs of a group code and a value; an entity begins with code 0. */
interface Entity {
  type: string;
  of: (code: number) => string[];
}
function entitiesOf(file: string): Entity[] {
  const lines = file.split(/\r?\n/).map((line) => line.trim());
  const pairs = Array.from({ length: lines.length >> 1 }, (_, at): [number, string] => [
    Number(lines[2 * at]),
    lines[2 * at + 1] ?? '',
  ]);
  const start = pairs.findIndex(([code, value]) => code === 2 && value === 'ENTITIES');
  const end = pairs.findIndex(([code, value], at) => at > start && code === 0 && value === 'ENDSEC');
  const found: [number, string][][] = [];
  for (const pair of pairs.slice(start + 1, end)) {
    if (pair[0] === 0) found.push([pair]);
    else found.at(-1)?.push(pair);
  }
  return found.map((own) => ({
    type: own[0]?.[1] ?? '',
    of: (code) => own.filter(([each]) => each === code).map(([, value]) => value),
  }));
}

const round = (value: number | string) => Math.round(Number(value) * 1000) / 1000;
/** The corners of a view's figures, and the centres of its circles, by layer. */
const cornersOf = ({ figures }: View) =>
  figures
    .flatMap((figure) =>
      (figure.kind === 'circle' ? [figure.centre] : figure.points).map(
        ([u, v]) => `${figure.layer} ${String(round(u))} ${String(round(v))}`,
      ),
    )
    .sort();

describe('a DXF file', () => {
  it('there are views to write', () => {
    expect(views.length).toBeGreaterThan(5);
  });

  it.each(views)(
    'of $name has every figure in its place and on its layer, in millimetres',
    ({ layers, view }) => {
      const file = writeDxf(view, layers, 'en');
      const entities = entitiesOf(file);
      const written = entities.flatMap(({ type, of }) => {
        if (type !== 'LWPOLYLINE' && type !== 'CIRCLE') return [];
        const [layer = ''] = of(8);
        const [us, vs] = [of(10), of(20)];
        return us.map((u, at) => `${layer} ${String(round(u))} ${String(round(vs[at] ?? ''))}`);
      });
      expect(written.sort()).toEqual(cornersOf(view));
      // $INSUNITS 4 are millimetres.
      expect(file.replace(/\r/g, '')).toMatch(/\$INSUNITS\n\s*70\n\s*4\n/);
      const used = new Set(entities.flatMap(({ of }) => of(8)));
      for (const layer of used) expect([...layers.map(({ id }) => id), 'DIMENSIONS', '0']).toContain(layer);
    },
  );

  it.each(views)('of $name has each dimension as one, and each word in its language', ({ layers, view }) => {
    for (const language of ['en', 'de']) {
      const entities = entitiesOf(writeDxf(view, layers, language));
      const dimensions = entities.filter(({ type }) => type === 'DIMENSION');
      expect(dimensions).toHaveLength(view.dimensions.length);
      const words = entities.filter(({ type }) => type === 'TEXT').map(({ of }) => of(1)[0]);
      for (const { text } of view.words) expect(words).toContain(text[language] ?? Object.values(text)[0]);
    }
  });
});

describe('a glTF file', () => {
  it.each(drawn)(
    'of $id has every solid that is seen in space, in metres and upright',
    async ({ layers, scene }) => {
      const document = await new NodeIO().readBinary(await writeGlb(scene, layers, 'RB-060'));
      expect(document.getRoot().listScenes()[0]?.getName()).toBe('RB-060');
      const seen = scene.solids.filter((solid) => !solid.views || solid.views.includes('space'));
      const meshes = document.getRoot().listMeshes();
      expect(meshes.length).toBe(new Set(seen.map(({ layer }) => layer)).size);
      let [low, high] = [Infinity, -Infinity];
      for (const mesh of meshes)
        for (const primitive of mesh.listPrimitives()) {
          const positions = primitive.getAttribute('POSITION');
          const normals = primitive.getAttribute('NORMAL');
          expect(positions?.getCount()).toBe(normals?.getCount());
          const [, from = 0] = positions?.getMin([]) ?? [];
          const [, to = 0] = positions?.getMax([]) ?? [];
          [low, high] = [Math.min(low, from), Math.max(high, to)];
          // Every normal has the length of one.
          for (let at = 0; at < (normals?.getCount() ?? 0); at++) {
            const [x = 0, y = 0, z = 0] = normals?.getElement(at, []) ?? [];
            expect(Math.hypot(x, y, z)).toBeCloseTo(1, 3);
          }
          // Every corner of a triangle is one that is there.
          const indices = primitive.getIndices();
          if (indices)
            expect(Math.max(...(indices.getArray() ?? []))).toBeLessThan(positions?.getCount() ?? 0);
        }
      // Of some nothing stands in space before something is decided.
      if (seen.length === 0) return;
      // What is drawn is metres high, not millimetres, and y points upwards.
      expect(high - low).toBeGreaterThan(0.05);
      expect(high - low).toBeLessThan(60);
    },
  );
});
