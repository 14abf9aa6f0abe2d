import { FileError } from '../errors.ts';
import { type Model, modelFromMesh } from '../mesh/model.ts';
import { foundPoints } from './lostPoints.ts';

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
 * @throws FileError when there are no faces
 */
export function modelFromFile(fileName: string, parts: FileParts): Model {
  const { positions, faceStart, cornerVertex, uv, objects, faceObject } = parts;
  const again = 'Export the model again and open the new file.';
  if (faceStart.length < 2) throw new FileError(fileName, 'there are no faces in this file.', again);
  const points = foundPoints(Float64Array.from(positions), faceStart, cornerVertex, fileName);
  const name = fileName.replace(/\.[^.]*$/, '');
  return {
    ...modelFromMesh(name, {
      positions: points.positions,
      faceStart: Uint32Array.from(faceStart),
      cornerVertex: Uint32Array.from(cornerVertex),
    }),
    ...(points.faceLost && { faceLost: points.faceLost }),
    ...(objects && faceObject && { objects, faceObject: Uint32Array.from(faceObject) }),
    uvSets: uv?.some((x) => !Number.isNaN(x)) ? [{ name: 'UV', uv: Float64Array.from(uv) }] : [],
  };
}
