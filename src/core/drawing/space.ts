/**
 * A scene seen in space, from the front, the right and above, as flat faces from the farthest to the nearest: vectors
 * for paper, where there is nothing that could turn a model.
 */
import { indexOf, planeOf, type Point, type Scene, type Solid } from './scene';
import type { Figure, Spot, View } from './views';

/** Sides of what is round. */
const sides = 20;
/** Rise of what goes to the right or back, seen from above. */
const [across, rise] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];

const project = ([x, y, z]: Point): Spot => [(x + y) * across, (y - x) * rise * 0.9 + z];

/** Faces of a body, corners counter-clockwise seen from outside or inside alike, with their normals. */
interface Face {
  corners: readonly Point[];
  normal: Point;
}

interface Body {
  solid: Solid;
  faces: readonly Face[];
  low: Point;
  high: Point;
}

/** The view; empty where the scene has no body that is seen in space. */
export function spaceViewOf(scene: Scene): View {
  const bodies = scene.solids
    .filter(({ views }) => !views || views.includes('space'))
    .map(bodyOf)
    .filter(({ faces }) => faces.length > 0);
  const figures = inOrder(bodies).flatMap(({ solid, faces }) =>
    faces
      .filter(({ normal }) => towards(normal) > 1e-9)
      .sort((a, b) => depthOf(a.corners) - depthOf(b.corners))
      .map((face, index): Figure => ({
        id: `${solid.id}.${String(index)}`,
        layer: solid.layer,
        looks: solid.looks,
        kind: 'polygon',
        points: face.corners.map(project),
        shade: shadeOf(face.normal),
      })),
  );
  const spots = figures.flatMap((figure) => (figure.kind === 'polygon' ? figure.points : []));
  const [us, vs] = [spots.map(([u]) => u), spots.map(([, v]) => v)];
  const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), -Infinity);
  return {
    figures,
    words: [],
    dimensions: [],
    frame:
      spots.length === 0
        ? { left: 0, right: 0, bottom: 0, top: 0 }
        : { left: least(us), right: most(us), bottom: least(vs), top: most(vs) },
  };
}

/** How far a face looks to whoever stands at the front, the right and above. */
const towards = ([x, y, z]: Point): number => x - y + z;
const depthOf = (corners: readonly Point[]): number =>
  corners.reduce((sum, corner) => sum + towards(corner), 0) / corners.length;

/** Light from above, a little from the front: 0 as painted, below darker, above lighter. */
const shadeOf = ([x, y, z]: Point): number => {
  const length = Math.hypot(x, y, z) || 1;
  return (z * 0.22 - y * 0.04 - x * 0.16) / length;
};

function bodyOf(solid: Solid): Body {
  const faces = facesOf(solid);
  const corners = faces.flatMap((face) => face.corners);
  const bound = (pick: (a: number, b: number) => number, from: number): Point =>
    [0, 1, 2].map((axis) =>
      corners.reduce((found, corner) => pick(found, corner[axis] as number), from),
    ) as unknown as Point;
  return { solid, faces, low: bound(Math.min, Infinity), high: bound(Math.max, -Infinity) };
}

function facesOf(solid: Solid): Face[] {
  switch (solid.kind) {
    case 'box': {
      const [[x, y, z], [dx, dy, dz]] = [solid.at, solid.size];
      return prismFaces(
        'z',
        [
          [x, y],
          [x + dx, y],
          [x + dx, y + dy],
          [x, y + dy],
        ],
        z,
        dz,
      );
    }
    case 'prism':
      return prismFaces(solid.along, solid.outline, solid.from, solid.length);
    case 'cylinder': {
      const [first, second] = planeOf[solid.along];
      const ring = (radius: number): [number, number][] =>
        Array.from({ length: sides }, (_, at) => {
          const angle = (2 * Math.PI * at) / sides;
          return [
            (solid.at[first] as number) + radius * Math.cos(angle),
            (solid.at[second] as number) + radius * Math.sin(angle),
          ];
        });
      const from = solid.at[indexOf[solid.along]] as number;
      return loftFaces(solid.along, ring(solid.radius), ring(solid.radiusTo), from, solid.length);
    }
  }
}

const prismFaces = (
  along: 'x' | 'y' | 'z',
  outline: readonly (readonly [number, number])[],
  from: number,
  length: number,
): Face[] => loftFaces(along, outline, outline, from, length);

/** The faces between an outline and another of as many corners. */
function loftFaces(
  along: 'x' | 'y' | 'z',
  near: readonly (readonly [number, number])[],
  far: readonly (readonly [number, number])[],
  from: number,
  length: number,
): Face[] {
  const [first, second] = planeOf[along];
  const depth = indexOf[along];
  const point = ([a, b]: readonly [number, number], at: number): Point => {
    const made = [0, 0, 0];
    made[first] = a;
    made[second] = b;
    made[depth] = at;
    return made as unknown as Point;
  };
  const [low, high] = length < 0 ? [from + length, from] : [from, from + length];
  const [bottom, top] = length < 0 ? [far, near] : [near, far];
  const along3 = (sign: number): Point => {
    const made = [0, 0, 0];
    made[depth] = sign;
    return made as unknown as Point;
  };
  const turn = Math.sign(areaOf(bottom) || areaOf(top));
  const sidesOf = bottom.map((corner, at): Face => {
    const next = (at + 1) % bottom.length;
    const [a, b] = [corner, bottom[next] as readonly [number, number]];
    const made = [0, 0, 0];
    // To the right of the way around, which is outside where the way is counter-clockwise.
    made[first] = (b[1] - a[1]) * turn;
    made[second] = (a[0] - b[0]) * turn;
    return {
      corners: [
        point(a, low),
        point(b, low),
        point(top[next] as readonly [number, number], high),
        point(top[at] as readonly [number, number], high),
      ],
      normal: made as unknown as Point,
    };
  });
  return [
    { corners: bottom.map((corner) => point(corner, low)), normal: along3(-1) },
    ...sidesOf,
    { corners: top.map((corner) => point(corner, high)), normal: along3(1) },
  ];
}

const areaOf = (outline: readonly (readonly [number, number])[]): number =>
  outline.reduce((sum, [a, b], at) => {
    const [c, d] = outline[(at + 1) % outline.length] as readonly [number, number];
    return sum + a * d - c * b;
  }, 0);

/**
 * Bodies from the farthest to the nearest. Of two that are apart along an axis the order is known; where bodies cross
 * each other in a ring, the one whose middle is farther goes first.
 */
function inOrder(bodies: readonly Body[]): Body[] {
  const behind = bodies.map((body) => bodies.flatMap((other, at) => (isBehind(other, body) ? [at] : [])));
  const middle = bodies.map(({ low, high }) => depthOf([low, high]));
  const byDepth = bodies.map((_, at) => at).sort((a, b) => (middle[a] as number) - (middle[b] as number));
  const state = new Map<number, 'begun' | 'done'>();
  const ordered: Body[] = [];
  const place = (at: number): void => {
    if (state.has(at)) return;
    state.set(at, 'begun');
    for (const other of behind[at] ?? []) place(other);
    state.set(at, 'done');
    ordered.push(bodies[at] as Body);
  };
  for (const at of byDepth) place(at);
  return ordered;
}

const slack = 0.5;

/** Whether one body can only be covered by the other, never the other way round. */
function isBehind(one: Body, other: Body): boolean {
  if (one === other) return false;
  const before = (axis: 0 | 1 | 2): boolean => one.high[axis] <= other.low[axis] + slack;
  const after = (axis: 0 | 1 | 2): boolean => one.low[axis] >= other.high[axis] - slack;
  const is = before(0) || after(1) || before(2);
  const not = after(0) || before(1) || after(2);
  return is && !not;
}
