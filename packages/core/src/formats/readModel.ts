import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { type Companions, readGltf } from './readGltf.ts';
import { readMtl } from './readMtl.ts';
import { readObj } from './readObj.ts';
import { readPly } from './readPly.ts';
import { readStl } from './readStl.ts';

const AGAIN = 'Export the model again and open the new file.';

/**
 * Reads a model file, told apart by its ending and its first bytes.
 *
 * @param companions  files opened along with it, which it may name
 * @param report  called now and then with the part that has been read, where that can be told
 * @throws FileError with what is wrong and what to do
 */
export async function readModel(
  bytes: Uint8Array,
  fileName: string,
  companions?: Companions,
  report?: (fraction: number) => void,
): Promise<Model> {
  const ending = fileName.slice(fileName.lastIndexOf('.') + 1).toLowerCase();
  if (bytes.length === 0) throw new FileError(fileName, 'the file is empty.', AGAIN);
  const begins = (word: string) => strFromU8(bytes.subarray(0, word.length), true) === word;
  if (begins('glTF')) return readGltf(bytes, fileName);
  switch (ending) {
    case 'glb':
      throw new FileError(fileName, 'this is not a GLB file.', AGAIN);
    case 'gltf':
      return readGltf(bytes, fileName, companions);
    case 'ply':
      if (!begins('ply')) throw new FileError(fileName, 'this is not a PLY file.', AGAIN);
      return readPly(bytes, fileName);
    case 'stl':
      return readStl(bytes, fileName);
    case 'obj':
      if (bytes.subarray(0, 4096).includes(0)) {
        throw new FileError(fileName, 'this is not a text file, as an OBJ file is.', AGAIN);
      }
      return coloured(readObj(bytes, fileName, report), companions);
    default:
      throw new FileError(
        fileName,
        `models ending in .${ending} cannot be opened.`,
        'Open an OBJ, glTF, GLB, PLY or STL file.',
      );
  }
}

/** With the colours that material libraries opened along with it give its materials. */
function coloured(model: Model, companions: Companions = new Map()): Model {
  const libraries = [...companions].filter(([name]) => /\.mtl$/i.test(name));
  const colours = new Map(libraries.flatMap(([, bytes]) => [...readMtl(bytes)]));
  if (!model.materials.some((name) => colours.has(name))) return model;
  const materialColours = Float64Array.from(
    model.materials.flatMap((name) => colours.get(name) ?? [NaN, NaN, NaN]),
  );
  return { ...model, materialColours };
}
