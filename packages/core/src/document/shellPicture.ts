import { facesOfShell } from '../surface/shells.ts';
import { type HemDocument, shellsOf, topologyOf } from './document.ts';

/** Where some triangles would lie. */
export interface ShellPicture {
  readonly triangles: Uint32Array;
  /** u and v of their corners, `6 × triangles.length`. */
  readonly uv: Float32Array;
}

/** @param uvOf  shells by number: UV of each vertex of the shell, `2 × vertexCount` */
export function shellPicture(
  document: HemDocument,
  uvOf: ReadonlyMap<number, ArrayLike<number>>,
): ShellPicture {
  const { triangulation, triangleStart } = topologyOf(document.model);
  const shells = shellsOf(document);
  let count = 0;
  for (const shell of uvOf.keys())
    for (const f of facesOfShell(shells, shell)) count += triangleStart[f + 1] - triangleStart[f];
  const triangles = new Uint32Array(count);
  const corners = new Float32Array(6 * count);
  let at = 0;
  for (const [shell, uv] of uvOf)
    for (const f of facesOfShell(shells, shell))
      for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++, at++) {
        triangles[at] = t;
        for (let k = 0; k < 3; k++) {
          const v = shells.cornerWedge[triangulation.triangleCorners[3 * t + k]] - shells.wedgeStart[shell];
          corners[6 * at + 2 * k] = uv[2 * v];
          corners[6 * at + 2 * k + 1] = uv[2 * v + 1];
        }
      }
  return { triangles, uv: corners };
}
