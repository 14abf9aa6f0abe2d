import { Document } from '@gltf-transform/core';
import { KHRMaterialsClearcoat } from '@gltf-transform/extensions';
import { encode } from 'fast-png';
import { gltfIo } from '../src/formats/gltfIo.ts';

/** A real PNG, of a shade. */
export const png = (shade: number) =>
  encode({ width: 2, height: 2, channels: 3, data: new Uint8Array(12).fill(shade) });

/** Two triangles of two materials of one name, one with images and a clear coat, and a third that nothing has. */
export async function texturedGlb(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const texture = (name: string, shade: number) =>
    document
      .createTexture(name)
      .setImage(Uint8Array.from(png(shade)))
      .setMimeType('image/png');
  const coat = document.createExtension(KHRMaterialsClearcoat).createClearcoat().setClearcoatFactor(0.75);
  const skin = document
    .createMaterial('Skin')
    .setBaseColorTexture(texture('colour map', 10))
    .setNormalTexture(texture('normal map', 128))
    .setRoughnessFactor(0.3)
    .setDoubleSided(true)
    .setExtension('KHR_materials_clearcoat', coat);
  const other = document.createMaterial('Skin').setBaseColorFactor([0.5, 0.25, 0.125, 1]);
  document.createMaterial('Nobody').setEmissiveTexture(texture('unused', 200));
  const mesh = document.createMesh('Scraps');
  for (const [i, material] of [other, skin].entries()) {
    const points = Float32Array.of(i, 0, 0, i + 1, 0, 0, i, 1, 0);
    mesh.addPrimitive(
      document
        .createPrimitive()
        .setMaterial(material)
        .setAttribute(
          'POSITION',
          document.createAccessor().setType('VEC3').setArray(points).setBuffer(buffer),
        ),
    );
  }
  document.createScene().addChild(document.createNode('Scraps').setMesh(mesh));
  return gltfIo().writeBinary(document);
}
