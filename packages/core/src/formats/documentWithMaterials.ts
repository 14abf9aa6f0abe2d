import { Document, type Material as GltfMaterial, type Texture } from '@gltf-transform/core';
import { EXTTextureWebP } from '@gltf-transform/extensions';
import type { ImageUse, ModelImage } from '../mesh/material.ts';
import type { Model } from '../mesh/model.ts';
import { gltfIo } from './gltfIo.ts';

/** A glTF document with the materials of a model and nothing else. Materials are in its order. */
export interface WithMaterials {
  readonly document: Document;
  readonly materials: readonly GltfMaterial[];
}

/**
 * Begins a glTF document with the materials of a model. Where the model is of a glTF file they are those of the file, with all that it
 * says of them and its images byte for byte; elsewhere they have their colour, and those images that were opened along.
 */
export async function documentWithMaterials(model: Model): Promise<WithMaterials> {
  const { source } = model;
  if (source.format !== 'glb') return composed(model);
  const document = await gltfIo().readBinary(source.bytes);
  const root = document.getRoot();
  const inFile = root.listMaterials();
  const rest = [
    ...root.listAnimations(),
    ...root.listSkins(),
    ...root.listScenes(),
    ...root.listNodes(),
    ...root.listCameras(),
    ...root.listMeshes().flatMap((mesh) => [...mesh.listPrimitives(), mesh]),
    ...root.listAccessors(),
  ];
  for (const property of rest) property.dispose();
  const materials = model.materials.map(({ name, inFile: at = -1 }) =>
    (inFile[at] ?? document.createMaterial()).setName(name),
  );
  const isUsed = new Set(materials);
  for (const material of inFile) if (!isUsed.has(material)) material.dispose();
  for (const texture of root.listTextures())
    if (texture.listParents().every((parent) => parent === root)) texture.dispose();
  return { document, materials };
}

const SETTERS: Readonly<Partial<Record<ImageUse, (material: GltfMaterial, texture: Texture) => void>>> = {
  colour: (material, texture) => material.setBaseColorTexture(texture),
  metallicRoughness: (material, texture) => material.setMetallicRoughnessTexture(texture),
  normal: (material, texture) => material.setNormalTexture(texture),
  occlusion: (material, texture) => material.setOcclusionTexture(texture),
  emissive: (material, texture) => material.setEmissiveTexture(texture).setEmissiveFactor([1, 1, 1]),
};

function composed(model: Model): WithMaterials {
  const document = new Document();
  const textures = model.images.map((image) => textureOf(document, image));
  const materials = model.materials.map(({ name, colour, images = {} }) => {
    const material = document.createMaterial(name);
    if (colour || images.colour !== undefined)
      material.setBaseColorFactor([...(colour ?? [1, 1, 1]), 1]).setMetallicFactor(0);
    for (const [use, place] of Object.entries(images)) {
      const texture = textures[place];
      if (texture) SETTERS[use as ImageUse]?.(material, texture);
    }
    return material;
  });
  return { document, materials };
}

/** Images of other kinds glTF does not hold. */
function textureOf(document: Document, { name, mimeType, bytes }: ModelImage): Texture | undefined {
  if (!bytes || mimeType === '') return undefined;
  if (mimeType === 'image/webp') document.createExtension(EXTTextureWebP).setRequired(true);
  return document.createTexture(name).setImage(Uint8Array.from(bytes)).setMimeType(mimeType);
}
