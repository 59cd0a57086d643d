/**
 * A drawing in space as IFC 4 (ISO 16739-1), for planners of buildings and sites: a STEP physical file (ISO 10303-21)
 * with one element a layer, its bodies as triangles in millimetres and in the colours of the drawing.
 */
import { createHash } from 'node:crypto';
import { meshOf, paints, type Scene, type Solid } from '../../../core/drawing';
import type { DrawingLayer } from '../../../core/model';

/** coarse: each body as the box that holds it. */
export type Detail = 'coarse' | 'full';

/** What the file says of itself. */
export interface IfcAbout {
  /** Of the build: its part number. */
  name: string;
  /** Of the element of a layer. */
  layerName: (id: string) => string;
  /** ISO day. */
  day: string;
  author: string;
  detail: Detail;
}

/** The file. */
export function writeIfc(scene: Scene, layers: readonly DrawingLayer[], about: IfcAbout): string {
  const file = new Step();
  const body = frame(file, about);
  const elements = layers.flatMap((layer) => {
    const solids = scene.solids.filter(
      (solid) => solid.layer === layer.id && (!solid.views || solid.views.includes('space')),
    );
    return solids.length === 0 ? [] : [element(file, layer, solids, { ...about, ...body })];
  });
  if (elements.length > 0)
    file.add(
      `IFCRELCONTAINEDINSPATIALSTRUCTURE(${guid(`${about.name} contains`)},$,$,$,(${elements.join(',')}),${body.storey})`,
    );
  return file.text(about);
}

interface Frame {
  context: string;
  placement: string;
  storey: string;
}

/** Entities of a STEP file, each with its number. */
class Step {
  private readonly lines: string[] = [];

  add(entity: string): string {
    this.lines.push(`#${String(this.lines.length + 1)}=${entity};`);
    return `#${String(this.lines.length)}`;
  }

  text({ name, day, author }: IfcAbout): string {
    return [
      'ISO-10303-21;',
      'HEADER;',
      "FILE_DESCRIPTION(('ViewDefinition [ReferenceView_V1.2]'),'2;1');",
      `FILE_NAME(${quoted(`${name}.ifc`)},'${day}T00:00:00',(${quoted(author)}),(${quoted(author)}),'Iunctura','Iunctura','');`,
      "FILE_SCHEMA(('IFC4'));",
      'ENDSEC;',
      'DATA;',
      ...this.lines,
      'ENDSEC;',
      'END-ISO-10303-21;',
      '',
    ].join('\n');
  }
}

/** The project with its units, a site, a building and a storey for the elements to stand in. */
function frame(file: Step, { name }: IfcAbout): Frame {
  const origin = file.add('IFCCARTESIANPOINT((0.,0.,0.))');
  const axes = file.add(`IFCAXIS2PLACEMENT3D(${origin},$,$)`);
  const context = file.add(`IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-5,${axes},$)`);
  const length = file.add('IFCSIUNIT(*,.LENGTHUNIT.,.MILLI.,.METRE.)');
  const area = file.add('IFCSIUNIT(*,.AREAUNIT.,$,.SQUARE_METRE.)');
  const volume = file.add('IFCSIUNIT(*,.VOLUMEUNIT.,$,.CUBIC_METRE.)');
  const angle = file.add('IFCSIUNIT(*,.PLANEANGLEUNIT.,$,.RADIAN.)');
  const units = file.add(`IFCUNITASSIGNMENT((${[length, area, volume, angle].join(',')}))`);
  const project = file.add(
    `IFCPROJECT(${guid(`${name} project`)},$,${quoted(name)},$,$,$,$,(${context}),${units})`,
  );
  const placement = file.add(`IFCLOCALPLACEMENT($,${axes})`);
  const site = file.add(
    `IFCSITE(${guid(`${name} site`)},$,${quoted('Site')},$,$,${placement},$,$,.ELEMENT.,$,$,$,$,$)`,
  );
  const building = file.add(
    `IFCBUILDING(${guid(`${name} building`)},$,${quoted(name)},$,$,${placement},$,$,.ELEMENT.,$,$,$)`,
  );
  const storey = file.add(
    `IFCBUILDINGSTOREY(${guid(`${name} storey`)},$,${quoted('Ground')},$,$,${placement},$,$,.ELEMENT.,0.)`,
  );
  for (const [of, part, what] of [
    [project, site, 'site in project'],
    [site, building, 'building on site'],
    [building, storey, 'storey in building'],
  ])
    file.add(`IFCRELAGGREGATES(${guid(`${name} ${what ?? ''}`)},$,$,$,${of ?? ''},(${part ?? ''}))`);
  return { context, placement, storey };
}

/** All bodies of a layer as one element. */
function element(
  file: Step,
  { id, looks }: DrawingLayer,
  solids: readonly Solid[],
  { name, layerName, detail, context, placement }: IfcAbout & Frame,
): string {
  const [red, green, blue] = [1, 3, 5].map((from) =>
    real(parseInt(paints[looks].slice(from, from + 2), 16) / 255),
  ) as [string, string, string];
  const colour = file.add(`IFCCOLOURRGB($,${red},${green},${blue})`);
  const shading = file.add(`IFCSURFACESTYLESHADING(${colour},0.)`);
  const style = file.add(`IFCSURFACESTYLE(${quoted(id)},.BOTH.,(${shading}))`);
  const faces = solids.map((solid) => {
    const set = faceSet(file, detail === 'coarse' ? boxed(solid) : meshOf(solid).positions);
    file.add(`IFCSTYLEDITEM(${set},(${style}),$)`);
    return set;
  });
  const representation = file.add(
    `IFCSHAPEREPRESENTATION(${context},'Body','Tessellation',(${faces.join(',')}))`,
  );
  const shape = file.add(`IFCPRODUCTDEFINITIONSHAPE($,$,(${representation}))`);
  return file.add(
    `IFCBUILDINGELEMENTPROXY(${guid(`${name} ${id}`)},$,${quoted(layerName(id))},$,$,${placement},${shape},$,.NOTDEFINED.)`,
  );
}

/** Triangles as corners, each once, and which three of them make a face. */
function faceSet(file: Step, positions: readonly number[]): string {
  const numbers = new Map<string, number>();
  const corners: string[] = [];
  const faces: string[] = [];
  const cornerAt = (at: number): number => {
    const text = `(${[0, 1, 2].map((axis) => real(positions[at + axis] ?? 0)).join(',')})`;
    const known = numbers.get(text);
    if (known !== undefined) return known;
    corners.push(text);
    numbers.set(text, corners.length);
    return corners.length;
  };
  for (let at = 0; at < positions.length; at += 9) {
    const [a, b, c] = [cornerAt(at), cornerAt(at + 3), cornerAt(at + 6)];
    // A face that comes to a line is none.
    if (a !== b && b !== c && a !== c) faces.push(`(${String(a)},${String(b)},${String(c)})`);
  }
  const points = file.add(`IFCCARTESIANPOINTLIST3D((${corners.join(',')}))`);
  return file.add(`IFCTRIANGULATEDFACESET(${points},$,.T.,(${faces.join(',')}),$)`);
}

/** The triangles of the box that holds a body. */
function boxed(solid: Solid): number[] {
  const { positions } = meshOf(solid);
  const bound = (axis: number, pick: (a: number, b: number) => number, from: number): number => {
    let found = from;
    for (let at = axis; at < positions.length; at += 3) found = pick(found, positions[at] as number);
    return found;
  };
  const [low, high] = [
    [0, 1, 2].map((axis) => bound(axis, Math.min, Infinity)),
    [0, 1, 2].map((axis) => bound(axis, Math.max, -Infinity)),
  ] as [[number, number, number], [number, number, number]];
  return meshOf({
    ...solid,
    kind: 'box',
    at: low,
    size: [high[0] - low[0], high[1] - low[1], high[2] - low[2]],
  }).positions;
}

/** A number as STEP writes it, to a hundredth of a millimetre. */
function real(value: number): string {
  const text = String(Math.round(value * 10_000) / 10_000 + 0);
  return text.includes('.') || text.includes('e') ? text.replace('e', 'E') : `${text}.`;
}

/** A text as STEP writes it: beyond ASCII by its code points. */
function quoted(text: string): string {
  const written = [...text]
    .map((letter) => {
      const code = letter.codePointAt(0) ?? 63;
      if (letter === "'" || letter === '\\') return letter + letter;
      if (code >= 32 && code < 127) return letter;
      return code > 0xffff
        ? `\\X4\\${code.toString(16).toUpperCase().padStart(8, '0')}\\X0\\`
        : `\\X2\\${code.toString(16).toUpperCase().padStart(4, '0')}\\X0\\`;
    })
    .join('');
  return `'${written}'`;
}

const digits = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

/** 128 bits of what names something, in the 22 digits that IFC writes them in; the same for the same. */
function guid(of: string): string {
  let rest = BigInt(`0x${createHash('sha256').update(of).digest('hex').slice(0, 32)}`);
  let text = '';
  for (let at = 0; at < 22; at++) {
    text = (digits[Number(rest % 64n)] as string) + text;
    rest /= 64n;
  }
  return `'${text}'`;
}
