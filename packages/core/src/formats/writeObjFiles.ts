import { type Model, repeatable } from '../mesh/model.ts';
import { fileNameOf } from './fileName.ts';
import { imageFiles } from './imageFiles.ts';
import { objNames } from './objNames.ts';
import type { OutFile } from './outFile.ts';
import { writeMtl } from './writeMtl.ts';
import { writeObj } from './writeObj.ts';

/**
 * An OBJ file with its material library and images. Where the file is repeated, the libraries are those that were opened along with it,
 * byte for byte; elsewhere one is composed.
 *
 * @param uv  `2 × cornerCount`; NaN where a corner has none
 * @param name  of the model's file, without its ending
 * @returns the model first
 */
export async function writeObjFiles(
  model: Model,
  uv: Float64Array,
  name: string,
): Promise<[OutFile, ...OutFile[]]> {
  const source = repeatable(model);
  const images = await imageFiles(model);
  const there = images.filter((image) => image !== undefined);
  if (source.format === 'obj') {
    return [{ name: `${name}.obj`, bytes: writeObj(model, uv) }, ...(source.libraries ?? []), ...there];
  }
  if (model.materials.length === 0) return [{ name: `${name}.obj`, bytes: writeObj(model, uv) }];
  const library = fileNameOf(name, 'mtl');
  const names = objNames(model.materials.map((material) => material.name));
  return [
    { name: `${name}.obj`, bytes: writeObj(model, uv, library) },
    {
      name: library,
      bytes: writeMtl(
        model.materials,
        names,
        images.map((image) => image?.name),
      ),
    },
    ...there,
  ];
}
