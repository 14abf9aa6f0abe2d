import { strToU8 } from 'fflate';
import type { Model } from '../mesh/model.ts';
import { fileNameOf } from './fileName.ts';
import { gltfIo } from './gltfIo.ts';
import type { OutFile } from './outFile.ts';
import { gltfDocument } from './writeGlb.ts';

/**
 * glTF as JSON with its numbers and images in files of their own.
 *
 * @param name  of the JSON file, without its ending
 * @returns the JSON file first
 */
export async function writeGltfFiles(
  model: Model,
  sets: readonly Float64Array[],
  name: string,
): Promise<[OutFile, ...OutFile[]]> {
  const document = await gltfDocument(model, sets);
  // Addresses in the JSON are names of files beside it.
  const plain = fileNameOf(name, '').slice(0, -1);
  document
    .getRoot()
    .listBuffers()
    .forEach((buffer, i) => {
      buffer.setURI(`${plain}${i === 0 ? '' : `-${i + 1}`}.bin`);
    });
  const { json, resources } = await gltfIo().writeJSON(document, { basename: plain });
  return [
    { name: `${name}.gltf`, bytes: strToU8(JSON.stringify(json)) },
    ...Object.entries(resources).map(([file, bytes]) => ({ name: decodeURIComponent(file), bytes })),
  ];
}
