/**
 * Solids as a binary glTF file. glTF is in metres with y upwards; the drawing is in millimetres with z
 * upwards.
 */
import { Document, NodeIO } from '@gltf-transform/core';
import { meshOf, paints, type Scene } from '../../../core/drawing';
import type { DrawingLayer } from '../../../core/model';

/** A drawing as binary glTF 2.0, in metres. */
export async function writeGlb(
  scene: Scene,
  layers: readonly DrawingLayer[],
  name: string,
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const root = document.createScene(name);
  for (const layer of layers) {
    const solids = scene.solids.filter(
      (solid) => solid.layer === layer.id && (!solid.views || solid.views.includes('space')),
    );
    if (solids.length === 0) continue;
    const meshes = solids.map(meshOf);
    const turned = (of: 'positions' | 'normals', scale: number): Float32Array<ArrayBuffer> => {
      const all = meshes.flatMap((mesh) => mesh[of]);
      const made = new Float32Array(all.length);
      for (let corner = 0; corner < all.length; corner += 3) {
        const [x, y, z] = [all[corner], all[corner + 1], all[corner + 2]] as [number, number, number];
        made.set([x * scale, z * scale, -y * scale], corner);
      }
      return made;
    };
    const attribute = (values: Float32Array<ArrayBuffer>) =>
      document.createAccessor().setType('VEC3').setArray(values).setBuffer(buffer);
    const [red, green, blue] = [1, 3, 5].map((from) =>
      linear(parseInt(paints[layer.looks].slice(from, from + 2), 16) / 255),
    ) as [number, number, number];
    const material = document
      .createMaterial(layer.id)
      .setBaseColorFactor([red, green, blue, 1])
      .setMetallicFactor(0.1)
      .setRoughnessFactor(0.8);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', attribute(turned('positions', 0.001)))
      .setAttribute('NORMAL', attribute(turned('normals', 1)))
      .setMaterial(material);
    root.addChild(
      document.createNode(layer.id).setMesh(document.createMesh(layer.id).addPrimitive(primitive)),
    );
  }
  return new NodeIO().writeBinary(document);
}

/** Colours of glTF materials are linear. */
const linear = (share: number): number =>
  share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
