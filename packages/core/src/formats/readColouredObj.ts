import type { Model } from '../mesh/model.ts';
import type { Companions } from './readGltf.ts';
import { readMtl } from './readMtl.ts';
import { readObj } from './readObj.ts';

/**
 * Reads an OBJ file with the colours that material libraries opened along with it give its materials.
 *
 * @throws FileError with what is wrong and what to do
 */
export function readColouredObj(
  bytes: Uint8Array,
  fileName: string,
  companions: Companions = new Map(),
  report?: (fraction: number) => void,
): Model {
  const model = readObj(bytes, fileName, report);
  const libraries = [...companions].filter(([name]) => /\.mtl$/i.test(name));
  const colours = new Map(libraries.flatMap(([, bytes]) => [...readMtl(bytes)]));
  if (!model.materials.some((name) => colours.has(name))) return model;
  const materialColours = Float64Array.from(
    model.materials.flatMap((name) => colours.get(name) ?? [NaN, NaN, NaN]),
  );
  return { ...model, materialColours };
}
