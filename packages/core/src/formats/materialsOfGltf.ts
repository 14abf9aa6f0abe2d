import type { Document, Material as GltfMaterial, Texture } from '@gltf-transform/core';
import type { Colour, ImageUse, Material, ModelImage } from '../mesh/material.ts';

/** What each use of an image is called by the reader. */
const TEXTURES: Readonly<Partial<Record<ImageUse, (material: GltfMaterial) => Texture | null>>> = {
  colour: (material) => material.getBaseColorTexture(),
  metallicRoughness: (material) => material.getMetallicRoughnessTexture(),
  normal: (material) => material.getNormalTexture(),
  occlusion: (material) => material.getOcclusionTexture(),
  emissive: (material) => material.getEmissiveTexture(),
};

/** Materials of a glTF document that faces have, numbered in the order in which they are asked for. */
export function materialsOf(document: Document): {
  readonly list: readonly Material[];
  indexOf(material: GltfMaterial): number;
} {
  const all = document.getRoot().listMaterials();
  const textures = document.getRoot().listTextures();
  const numbers = new Map<GltfMaterial, number>();
  const list: Material[] = [];
  const described = (material: GltfMaterial): Material => {
    const images = Object.entries(TEXTURES).flatMap(([use, textureOf]) => {
      const texture = textureOf(material);
      return texture ? [[use, textures.indexOf(texture)]] : [];
    });
    return {
      name: material.getName(),
      colour: material.getBaseColorFactor().slice(0, 3) as unknown as Colour,
      ...(images.length > 0 && { images: Object.fromEntries(images) }),
      inFile: all.indexOf(material),
    };
  };
  return {
    list,
    indexOf(material) {
      const known = numbers.get(material) ?? list.push(described(material)) - 1;
      numbers.set(material, known);
      return known;
    },
  };
}

/** Images of a glTF document, in the order of the file, whose bytes stand in the source of the model. */
export const imagesOf = (document: Document): ModelImage[] =>
  document
    .getRoot()
    .listTextures()
    .map((texture) => ({ name: texture.getName() || texture.getURI(), mimeType: texture.getMimeType() }));
