import type { Mesh } from '../mesh/mesh.ts';
import { type Frame, inFrame } from './frame.ts';

/**
 * Flat projection along a frame's view: faces seen edge-on collapse to lines, and those that look away come out
 * mirrored.
 *
 * @returns UV of every corner of the mesh in model units, `2 × cornerCount`, NaN outside `faces`
 */
export function projectPlanar(mesh: Mesh, faces: ArrayLike<number>, frame: Frame): Float64Array {
  const at = inFrame(frame, mesh.positions);
  const uv = new Float64Array(2 * mesh.cornerVertex.length).fill(NaN);
  for (let i = 0; i < faces.length; i++) {
    for (let c = mesh.faceStart[faces[i]]; c < mesh.faceStart[faces[i] + 1]; c++) {
      uv[2 * c] = at[3 * mesh.cornerVertex[c]];
      uv[2 * c + 1] = at[3 * mesh.cornerVertex[c] + 1];
    }
  }
  return uv;
}
