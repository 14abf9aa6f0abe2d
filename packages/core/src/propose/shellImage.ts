import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { facesOfShell, type ShellMap } from '../surface/shells.ts';
import type { Counterparts } from '../symmetry/counterparts.ts';

/** What each vertex of a shell becomes in the mirror, where the shell is its own image. */
export interface ShellImage {
  readonly vertices: Int32Array;
  /** 1 for each face of the model on the side that leads. */
  readonly ours: Uint8Array;
}

/**
 * @param isAhead  whether a place lies on the side of the plane that leads: above 0, on it 0, or behind below 0
 * @returns undefined where the shell is not its own image, or the plane runs through its faces
 */
export function shellImage(
  mesh: Mesh,
  connectivity: Connectivity,
  shells: ShellMap,
  shell: number,
  { vertices: to, faces: faceTo }: Counterparts,
  isAhead: (vertex: number) => number,
): ShellImage | undefined {
  const { faceStart, cornerVertex } = mesh;
  const first = shells.wedgeStart[shell];
  const vertices = new Int32Array(shells.wedgeStart[shell + 1] - first).fill(-1);
  const ours = new Uint8Array(faceStart.length - 1);
  const faces = facesOfShell(shells, shell);
  for (const f of faces) {
    const g = faceTo[f];
    if (g < 0 || g === f || shells.faceShell[g] !== shell) return undefined;
    let side = 0;
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      side += isAhead(cornerVertex[c]);
      const w = to[cornerVertex[c]];
      for (let d = faceStart[g]; d < faceStart[g + 1]; d++)
        if (cornerVertex[d] === w) vertices[shells.cornerWedge[c] - first] = shells.cornerWedge[d] - first;
    }
    if (side > 0) ours[f] = 1;
  }
  for (const f of faces) {
    if (ours[f] === ours[faceTo[f]]) return undefined;
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const e = connectivity.cornerEdge[c];
      if (!connectivity.isInterior[e]) continue;
      const [a, b] = [0, 1].map(
        (k) => connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]],
      );
      if (ours[a] === ours[b] || shells.faceShell[a] !== shell || shells.faceShell[b] !== shell) continue;
      for (let k = 0; k < 2; k++)
        if (to[connectivity.edgeVertices[2 * e + k]] !== connectivity.edgeVertices[2 * e + k])
          return undefined;
    }
  }
  return vertices.includes(-1) ? undefined : { vertices, ours };
}
