import { FileError } from '../errors.ts';
import { type Model, modelFromMesh } from '../mesh/model.ts';

export interface FileParts {
  readonly positions: readonly number[];
  readonly faceStart: readonly number[];
  readonly cornerVertex: readonly number[];
  /** `2 × cornerCount`, NaN for none. */
  readonly uv?: readonly number[];
  readonly objects?: readonly string[];
  readonly faceObject?: readonly number[];
}

/**
 * A model from what a simple format holds.
 *
 * @throws FileError when there are no faces, or a position is not a number
 */
export function modelFromFile(fileName: string, parts: FileParts): Model {
  const { positions, faceStart, cornerVertex, uv, objects, faceObject } = parts;
  const again = 'Export the model again and open the new file.';
  if (faceStart.length < 2) throw new FileError(fileName, 'there are no faces in this file.', again);
  if (!positions.every(Number.isFinite)) {
    throw new FileError(fileName, 'a vertex position is not a number.', again);
  }
  const name = fileName.replace(/\.[^.]*$/, '');
  return {
    ...modelFromMesh(name, {
      positions: Float64Array.from(positions),
      faceStart: Uint32Array.from(faceStart),
      cornerVertex: Uint32Array.from(cornerVertex),
    }),
    ...(objects && faceObject && { objects, faceObject: Uint32Array.from(faceObject) }),
    uvSets: uv?.some((x) => !Number.isNaN(x)) ? [{ name: 'UV', uv: Float64Array.from(uv) }] : [],
  };
}
