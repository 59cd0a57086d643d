/** Solids as triangles, for the page's 3D and for glTF. */
import earcut from 'earcut';
import { indexOf, planeOf, type Point, type Solid } from './scene';

/**
 * Triangles: nine coordinates each, millimetres, counter-clockwise seen from outside; a normal for each
 * corner.
 */
export interface Mesh {
  positions: number[];
  normals: number[];
}

const sides = 28;

type Corner = readonly [Point, normal?: Point];

/** A solid as triangles, outsides out. */
export function meshOf(solid: Solid): Mesh {
  const mesh: Mesh = { positions: [], normals: [] };
  if (solid.kind === 'cylinder') cylinder(mesh, solid);
  else if (solid.kind === 'prism') prism(mesh, solid.along, solid.outline, solid.from, solid.length);
  else {
    const [[x, y, z], [dx, dy, dz]] = [solid.at, solid.size];
    prism(
      mesh,
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
  return mesh;
}

/** A triangle; without normals of its own it is flat. */
function triangle(mesh: Mesh, a: Corner, b: Corner, c: Corner): void {
  const [p, q, r] = [a[0], b[0], c[0]];
  const flat = unit(cross(minus(q, p), minus(r, p)));
  for (const [point, normal] of [a, b, c]) {
    mesh.positions.push(...point);
    mesh.normals.push(...(normal ?? flat));
  }
}

function prism(
  mesh: Mesh,
  along: 'x' | 'y' | 'z',
  given: readonly (readonly [number, number])[],
  from: number,
  length: number,
): void {
  const outline = area(given) < 0 ? [...given].reverse() : given;
  const [near, far] = length < 0 ? [from + length, from] : [from, from + length];
  const point = ([a, b]: readonly [number, number], depth: number): Point => {
    const [first, second] = planeOf[along];
    const made = [0, 0, 0];
    made[first] = a;
    made[second] = b;
    made[indexOf[along]] = depth;
    return made as unknown as Point;
  };
  // x and z span a left-handed plane across y: everything is wound the other way round there.
  const face = (a: Point, b: Point, c: Point) =>
    along === 'y' ? triangle(mesh, [a], [c], [b]) : triangle(mesh, [a], [b], [c]);
  const corners = earcut(outline.flat());
  for (let at = 0; at < corners.length; at += 3) {
    const [a, b, c] = [0, 1, 2].map(
      (next) => outline[corners[at + next] as number] as readonly [number, number],
    ) as [readonly [number, number], readonly [number, number], readonly [number, number]];
    const [first, second, third] = area([a, b, c]) < 0 ? [a, c, b] : [a, b, c];
    face(point(first, far), point(second, far), point(third, far));
    face(point(first, near), point(third, near), point(second, near));
  }
  outline.forEach((here, index) => {
    const next = outline[(index + 1) % outline.length] as readonly [number, number];
    face(point(here, near), point(next, near), point(next, far));
    face(point(here, near), point(next, far), point(here, far));
  });
}

function cylinder(
  mesh: Mesh,
  { along, at, radius, radiusTo, length }: Extract<Solid, { kind: 'cylinder' }>,
): void {
  const [u, v] = planeOf[along];
  const axis = indexOf[along];
  const make = (depth: number, r: number, turn: number): Point => {
    const made = [...at];
    made[axis] = (at[axis] as number) + depth;
    made[u] = (at[u] as number) + r * Math.cos(turn);
    made[v] = (at[v] as number) + r * Math.sin(turn);
    return made as unknown as Point;
  };
  const slope = (radius - radiusTo) / (length || 1);
  const normal = (turn: number): Point => {
    const made = [0, 0, 0];
    made[axis] = slope;
    made[u] = Math.cos(turn);
    made[v] = Math.sin(turn);
    return unit(made as unknown as Point);
  };
  const face = (a: Corner, b: Corner, c: Corner) =>
    along === 'y' ? triangle(mesh, a, c, b) : triangle(mesh, a, b, c);
  const [low, high] = [make(0, 0, 0), make(length, 0, 0)];
  for (let side = 0; side < sides; side++) {
    const [from, to] = [(2 * Math.PI * side) / sides, (2 * Math.PI * (side + 1)) / sides];
    const [a, b, c, d] = [
      make(0, radius, from),
      make(0, radius, to),
      make(length, radiusTo, to),
      make(length, radiusTo, from),
    ];
    if (radius > 0) face([a, normal(from)], [b, normal(to)], [c, normal(to)]);
    if (radiusTo > 0) face([a, normal(from)], [c, normal(to)], [d, normal(from)]);
    if (radius > 0) face([low], [b], [a]);
    if (radiusTo > 0) face([high], [d], [c]);
  }
}

/** Twice the area of an outline; negative where it runs clockwise. */
const area = (outline: readonly (readonly [number, number])[]): number =>
  outline.reduce((sum, [a, b], index) => {
    const [c, d] = outline[(index + 1) % outline.length] as readonly [number, number];
    return sum + a * d - c * b;
  }, 0);
const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (a: Point): Point => {
  const size = Math.hypot(...a) || 1;
  return [a[0] / size, a[1] / size, a[2] / size];
};
