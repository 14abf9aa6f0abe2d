import type { Model } from '../mesh/model.ts';
import { gltfIo } from './gltfIo.ts';

/**
 * The file of an image of a model, byte for byte as it was opened.
 *
 * @param image  its place among the images of the model
 * @returns undefined where the model names it only
 */
export async function imageBytes({ images, source }: Model, image: number): Promise<Uint8Array | undefined> {
  if (source.format !== 'glb') return images[image]?.bytes;
  const document = await gltfIo().readBinary(source.bytes);
  const bytes = document.getRoot().listTextures()[image]?.getImage();
  return bytes && bytes.length > 0 ? bytes : undefined;
}
