import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import { facesOfShell, shellsAtEdges, type shellsFromSeams } from '../surface/shells.ts';
import type { Counterparts } from '../symmetry/counterparts.ts';

/** A mesh that is being cut up. */
export interface CutUp {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  readonly triangulation: Triangulation;
  readonly triangleStart: Uint32Array;
  /** 1 for each cut edge; changed in place. */
  readonly now: Uint8Array;
  /** Seams that stay. */
  readonly seams: Uint8Array;
  /** What every part becomes in the mirror, where seams have an image. */
  readonly pairs: Counterparts | undefined;
}

type Shells = ReturnType<typeof shellsFromSeams>;

/** Sews edges, and with them their mirror images, but for seams that stay. */
export function sewThese({ pairs, seams }: CutUp, edges: Iterable<number>, into: Uint8Array): void {
  for (const e of edges)
    for (const each of [e, pairs?.edges[e] ?? -1]) if (each >= 0 && !seams[each]) into[each] = 0;
}

/** Cuts edges, and with them their mirror images. */
export function cutThese({ connectivity, now, pairs }: CutUp, edges: Iterable<number>): void {
  for (const e of edges) {
    now[e] = 1;
    const image = pairs?.edges[e] ?? -1;
    if (image >= 0 && connectivity.isInterior[image]) now[image] = 1;
  }
}

/** Surface of some faces, model units squared. */
export const areaOf = (mesh: Mesh, faces: Iterable<number>): number => {
  let area = 0;
  for (const f of faces) area += Math.hypot(...faceNormal(mesh, f)) / 2;
  return area;
};

/** Edges that a shell shares with each of its neighbours, by the neighbour. */
export function sharedEdges(
  mesh: Mesh,
  connectivity: Connectivity,
  shells: Shells,
  shell: number,
  isFree: (edge: number) => boolean,
): Map<number, number[]> {
  const shared = new Map<number, number[]>();
  for (const f of facesOfShell(shells, shell)) {
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const e = connectivity.cornerEdge[c];
      if (!connectivity.isInterior[e] || !isFree(e)) continue;
      for (const other of shellsAtEdges(connectivity, shells, [e])) {
        if (other === shell) continue;
        const list = shared.get(other);
        if (list) list.push(e);
        else shared.set(other, [e]);
      }
    }
  }
  return shared;
}

/** Edges that a shell shares with the neighbour with which it shares most; none where there is no neighbour. */
export function mostShared(...asked: Parameters<typeof sharedEdges>): number[] {
  const [most = []] = [...sharedEdges(...asked).values()].sort((a, b) => b.length - a.length);
  return most;
}
