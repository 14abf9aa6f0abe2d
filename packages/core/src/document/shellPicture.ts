import { facesOfShell } from '../surface/shells.ts';
import { type HemDocument, shellsOf, topologyOf } from './document.ts';

/** Where some triangles would lie. */
export interface ShellPicture {
  readonly triangles: Uint32Array;
  /** u and v of their corners, `6 × triangles.length`. */
  readonly uv: Float32Array;
}

/** @param uv  of each vertex of the shell, `2 × vertexCount` */
export function shellPicture(document: HemDocument, shell: number, uv: ArrayLike<number>): ShellPicture {
  const { triangulation, triangleStart } = topologyOf(document.model);
  const shells = shellsOf(document);
  const faces = facesOfShell(shells, shell);
  let count = 0;
  for (const f of faces) count += triangleStart[f + 1] - triangleStart[f];
  const triangles = new Uint32Array(count);
  const corners = new Float32Array(6 * count);
  let at = 0;
  for (const f of faces) {
    for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++, at++) {
      triangles[at] = t;
      for (let k = 0; k < 3; k++) {
        const v = shells.cornerWedge[triangulation.triangleCorners[3 * t + k]] - shells.wedgeStart[shell];
        corners[6 * at + 2 * k] = uv[2 * v];
        corners[6 * at + 2 * k + 1] = uv[2 * v + 1];
      }
    }
  }
  return { triangles, uv: corners };
}
