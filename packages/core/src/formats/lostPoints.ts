import { FileError } from '../errors.ts';

/**
 * Positions that are not numbers, as broken exports have them, put in the middle of the others, so that the rest of the model
 * can be worked with.
 *
 * @param positions  xyz of all vertices
 * @param fileName  for the sentence of the error
 * @returns the positions, and 1 for each face with a corner that was lost; undefined where none was
 * @throws FileError when no point has a place
 */
export function foundPoints(
  positions: Float64Array,
  faceStart: ArrayLike<number>,
  cornerVertex: ArrayLike<number>,
  fileName: string,
): { readonly positions: Float64Array; readonly faceLost?: Uint8Array } {
  const vertices = positions.length / 3;
  const lost = new Uint8Array(vertices);
  const sum = [0, 0, 0];
  let sound = 0;
  for (let v = 0; v < vertices; v++) {
    if (!Number.isFinite(positions[3 * v] + positions[3 * v + 1] + positions[3 * v + 2])) lost[v] = 1;
    else {
      sound++;
      for (let k = 0; k < 3; k++) sum[k] += (positions[3 * v + k] - sum[k]) / sound; // running mean: never overflows
    }
  }
  if (sound === vertices) return { positions };
  if (sound === 0)
    throw new FileError(
      fileName,
      'none of its points has a place: all are “not a number”.',
      'Export the model again and open the new file.',
    );
  const faceLost = new Uint8Array(faceStart.length - 1);
  for (let f = 0; f < faceLost.length; f++)
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) if (lost[cornerVertex[c]]) faceLost[f] = 1;
  return { positions: positions.map((x, i) => (lost[Math.floor(i / 3)] ? sum[i % 3] : x)), faceLost };
}
