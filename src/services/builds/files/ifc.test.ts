/** The drawing in space as planners read it: by a reader that is not ours. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { IfcAPI, IFCBUILDINGELEMENTPROXY, IFCPROJECT, IFCTRIANGULATEDFACESET } from 'web-ifc';
import { beforeAll, describe, expect, it } from 'vitest';
import { meshOf, type Scene, type Solid } from '../../../core/drawing';
import { writeIfc, type Detail } from './ifc';

const solids: Solid[] = [
  { id: 'deck', layer: 'DECK', looks: 'steel', kind: 'box', at: [0, 0, 0], size: [6000, 3000, 250] },
  {
    id: 'cell',
    layer: 'CELLS',
    looks: 'accent',
    kind: 'cylinder',
    along: 'z',
    at: [300, 300, -120],
    radius: 60,
    radiusTo: 40,
    length: 120,
  },
];
const scene: Scene = { solids, labels: [], measures: [], waits: [] };
const layers = [
  { id: 'DECK', name: { en: 'Deck' }, looks: 'steel' as const },
  { id: 'CELLS', name: { en: 'Cells' }, looks: 'accent' as const },
  { id: 'NOTHING', name: { en: 'Nothing' }, looks: 'dark' as const },
];
const written = (detail: Detail, name = "RB-060 'Ö' 東"): string =>
  writeIfc(scene, layers, {
    name,
    layerName: (id) => layers.find((each) => each.id === id)?.name.en ?? id,
    day: '2026-11-05',
    author: 'Harrowmoor Scale Works',
    detail,
  });

let api: IfcAPI;
beforeAll(async () => {
  api = new IfcAPI();
  const folder = dirname(createRequire(join(process.cwd(), 'package.json')).resolve('web-ifc'));
  api.SetWasmPath(`${folder}/`, true);
  await api.Init();
});

/** The corners of all bodies as they stand in the world, in metres. */
function corners(model: number): { low: number[]; high: number[]; triangles: number } {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  let triangles = 0;
  api.StreamAllMeshes(model, (mesh) => {
    for (let at = 0; at < mesh.geometries.size(); at++) {
      const { geometryExpressID, flatTransformation: turn } = mesh.geometries.get(at);
      const geometry = api.GetGeometry(model, geometryExpressID);
      const points = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
      triangles += geometry.GetIndexDataSize() / 3;
      for (let corner = 0; corner < points.length; corner += 6)
        for (const axis of [0, 1, 2]) {
          const value = [0, 1, 2].reduce(
            (sum, from) => sum + (turn[from * 4 + axis] ?? 0) * (points[corner + from] ?? 0),
            turn[12 + axis] ?? 0,
          );
          low[axis] = Math.min(low[axis] ?? 0, value);
          high[axis] = Math.max(high[axis] ?? 0, value);
        }
    }
  });
  return { low, high, triangles };
}

describe('an IFC file', () => {
  it('has an element a layer, with its name, and bodies where they stand', () => {
    const model = api.OpenModel(new TextEncoder().encode(written('full')));
    expect(api.GetModelSchema(model)).toBe('IFC4');
    const elements = api.GetLineIDsWithType(model, IFCBUILDINGELEMENTPROXY);
    const names = Array.from({ length: elements.size() }, (_, at) => {
      const line = api.GetLine(model, elements.get(at)) as { Name: { value: string } };
      return line.Name.value;
    });
    expect(names).toEqual(['Deck', 'Cells']);
    const [project] = [api.GetLineIDsWithType(model, IFCPROJECT).get(0)];
    expect((api.GetLine(model, project) as { Name: { value: string } }).Name.value).toBe("RB-060 'Ö' 東");
    const { low, high, triangles } = corners(model);
    // Read with y upwards: our z is its y, our y its -z; millimetres became metres.
    expect([low[0], high[0], low[1], high[1]].map((each) => Number(each?.toFixed(3)))).toEqual([
      0, 6, -0.12, 0.25,
    ]);
    expect(Number(((high[2] ?? 0) - (low[2] ?? 0)).toFixed(3))).toBe(3);
    const ours = solids.reduce((sum, solid) => sum + meshOf(solid).positions.length / 9, 0);
    expect(triangles).toBe(ours);
    api.CloseModel(model);
  });

  it('is coarse where that is wanted: each body a box', () => {
    const model = api.OpenModel(new TextEncoder().encode(written('coarse')));
    expect(api.GetLineIDsWithType(model, IFCTRIANGULATEDFACESET).size()).toBe(2);
    expect(corners(model).triangles).toBe(24);
    api.CloseModel(model);
  });

  it('is the same for the same build, and for another another', () => {
    expect(written('full')).toBe(written('full'));
    expect(written('full', 'RB-1')).not.toContain(/IFCPROJECT\(('[^']+')/.exec(written('full'))?.[1]);
  });
});
