import { bucket, type Connectivity } from '../mesh/connectivity.ts';
import { type DisjointSets, disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';

/**
 * The pieces the seams make. A *wedge* is what a vertex becomes in the flat: the corners round it
 * that stay together. Faces are in one shell when a chain of joined, uncut edges links them.
 */
export interface ShellMap {
  readonly shellCount: number;
  readonly faceShell: Uint32Array;
  /** Faces of shell s: `shellFaces[shellFaceStart[s] … shellFaceStart[s + 1]]`. */
  readonly shellFaceStart: Uint32Array;
  readonly shellFaces: Uint32Array;
  /** Wedges are numbered shell by shell: those of shell s are `wedgeStart[s] … wedgeStart[s + 1]`. */
  readonly wedgeStart: Uint32Array;
  readonly cornerWedge: Uint32Array;
}

/**
 * @param seams  1 for every edge that is cut, `edgeCount`
 */
export function shellsFromSeams(mesh: Mesh, connectivity: Connectivity, seams: Uint8Array): ShellMap {
  const { edgeCorners, edgeCornerStart, nextCorner, cornerFace } = connectivity;
  const faces = disjointSets(faceCount(mesh));
  const corners = disjointSets(mesh.cornerVertex.length);
  for (let e = 0; e < seams.length; e++) {
    if (seams[e] || !connectivity.isInterior[e]) continue;
    const a = edgeCorners[edgeCornerStart[e]];
    const b = edgeCorners[edgeCornerStart[e] + 1];
    unite(faces, cornerFace[a], cornerFace[b]);
    unite(corners, a, nextCorner[b]);
    unite(corners, nextCorner[a], b);
  }
  const shells = numberSets(faces);
  const { start, items } = bucket(shells.label, shells.count);
  const { wedgeStart, cornerWedge } = numberWedges(corners, cornerFace, shells.label, shells.count);
  return {
    shellCount: shells.count,
    faceShell: shells.label,
    shellFaceStart: start,
    shellFaces: items,
    wedgeStart,
    cornerWedge,
  };
}

function numberWedges(
  corners: DisjointSets,
  cornerFace: Uint32Array,
  faceShell: Uint32Array,
  shellCount: number,
) {
  const wedges = numberSets(corners);
  const wedgeShell = new Uint32Array(wedges.count);
  for (let c = 0; c < cornerFace.length; c++) wedgeShell[wedges.label[c]] = faceShell[cornerFace[c]];
  const { start: wedgeStart, items } = bucket(wedgeShell, shellCount);
  const renumbered = new Uint32Array(wedges.count);
  items.forEach((wedge, i) => {
    renumbered[wedge] = i;
  });
  return { wedgeStart, cornerWedge: wedges.label.map((wedge) => renumbered[wedge]) };
}

export function facesOfShell(shells: ShellMap, shell: number): Uint32Array {
  return shells.shellFaces.subarray(shells.shellFaceStart[shell], shells.shellFaceStart[shell + 1]);
}

/**
 * Joined edges where a UV set breaks: the seams a file came with.
 *
 * @param uv  `2 × cornerCount`, NaN where a corner has none; such edges do not count as broken
 * @returns 1 per broken edge
 */
export function seamsFromUv(connectivity: Connectivity, uv: Float64Array): Uint8Array {
  const { edgeCorners, edgeCornerStart, nextCorner } = connectivity;
  const seams = new Uint8Array(connectivity.isInterior.length);
  for (let e = 0; e < seams.length; e++) {
    if (!connectivity.isInterior[e]) continue;
    const a = edgeCorners[edgeCornerStart[e]];
    const b = edgeCorners[edgeCornerStart[e] + 1];
    seams[e] = differ(uv, a, nextCorner[b]) || differ(uv, nextCorner[a], b) ? 1 : 0;
  }
  return seams;
}

const differ = (uv: Float64Array, a: number, b: number): boolean =>
  Math.abs(uv[2 * a] - uv[2 * b]) > 1e-7 || Math.abs(uv[2 * a + 1] - uv[2 * b + 1]) > 1e-7;

/** Shells on either side of the given edges, each once, in order. */
export function shellsAtEdges(
  connectivity: Connectivity,
  shells: ShellMap,
  edges: Iterable<number>,
): number[] {
  const found = new Set<number>();
  for (const e of edges) {
    for (let i = connectivity.edgeCornerStart[e]; i < connectivity.edgeCornerStart[e + 1]; i++) {
      found.add(shells.faceShell[connectivity.cornerFace[connectivity.edgeCorners[i]]]);
    }
  }
  return [...found].sort((a, b) => a - b);
}

/** True where the edge is a border of its shell in the flat; a cut that ends at both sides opens nothing. */
export function isOpen(connectivity: Connectivity, shells: ShellMap, edge: number): boolean {
  const first = connectivity.edgeCornerStart[edge];
  if (connectivity.edgeCornerStart[edge + 1] - first !== 2) return true;
  const a = connectivity.edgeCorners[first];
  const b = connectivity.edgeCorners[first + 1];
  const { cornerWedge } = shells;
  return (
    cornerWedge[a] !== cornerWedge[connectivity.nextCorner[b]] ||
    cornerWedge[connectivity.nextCorner[a]] !== cornerWedge[b]
  );
}

/** Shells with a face for which something holds, by number, in order. */
export function shellsWhere({ shellCount, faceShell }: ShellMap, holds: (face: number) => boolean): number[] {
  const found = new Uint8Array(shellCount);
  for (let f = 0; f < faceShell.length; f++) if (!found[faceShell[f]] && holds(f)) found[faceShell[f]] = 1;
  return Array.from(found.keys()).filter((s) => found[s] === 1);
}
