import { type Connectivity, connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength, type Path, shortestPath } from '../select/shortestPath.ts';

/**
 * Edges that turn one piece into a disc, whatever its borders and handles: a tree over its faces that would
 * rather cross flat edges than creases; the edges it does not cross, with loose ends pruned, are the cut
 * (Gu, Gortler, Hoppe 2002; tree and cotree, Eppstein 2003). A closed ball, where nothing is left of
 * that, is opened along the shortest way between two points far apart.
 *
 * @param normals  of its faces, `3 × faceCount`
 * @param faces  one edge-connected piece
 * @param seams  1 per edge that is cut already
 * @returns edges to cut in addition
 */
export function openPiece(
  mesh: Mesh,
  links: Connectivity,
  normals: Float64Array,
  seams: Uint8Array,
  faces: ArrayLike<number>,
): number[] {
  const inPiece = new Set<number>(Array.from(faces));
  const isInside = (e: number) => links.joined[e] === 1 && !seams[e];
  const crossed = faceTree(mesh, links, normals, inPiece, isInside);
  const cut = pruned(mesh, links, inPiece, (e) => !crossed.has(e));
  return cut.size > 0 ? [...cut].filter(isInside) : acrossBall(mesh, links, inPiece);
}

const cornersOf = (mesh: Mesh, f: number): number[] =>
  Array.from({ length: mesh.faceStart[f + 1] - mesh.faceStart[f] }, (_, k) => mesh.faceStart[f] + k);

/** A spanning tree over faces, grown across the flattest edges first (Prim 1957); the edges it crosses. */
function faceTree(
  mesh: Mesh,
  links: Connectivity,
  normals: Float64Array,
  piece: Set<number>,
  isInside: (e: number) => boolean,
): Set<number> {
  const flatness = (e: number): number => {
    const i = 3 * links.cornerFace[links.edgeCorners[links.edgeCornerStart[e]]];
    const j = 3 * links.cornerFace[links.edgeCorners[links.edgeCornerStart[e] + 1]];
    return normals[i] * normals[j] + normals[i + 1] * normals[j + 1] + normals[i + 2] * normals[j + 2];
  };
  const edges = new Set<number>();
  for (const f of piece)
    for (const c of cornersOf(mesh, f)) if (isInside(links.cornerEdge[c])) edges.add(links.cornerEdge[c]);
  // Four classes of flatness, each first come first served: equal edges are taken breadth first.
  const [first] = piece;
  const reached = new Set([first]);
  const queues: number[][] = [[], [], [], []];
  const push = (f: number) => {
    for (const c of cornersOf(mesh, f)) {
      const e = links.cornerEdge[c];
      if (edges.has(e)) queues[Math.max(0, Math.min(3, Math.floor(2 * (1 - flatness(e)))))].push(e);
    }
  };
  const heads = [0, 0, 0, 0];
  const crossed = new Set<number>();
  push(first);
  for (;;) {
    const q = heads.findIndex((head, i) => head < queues[i].length);
    if (q < 0) return crossed;
    const e = queues[q][heads[q]++];
    for (let i = links.edgeCornerStart[e]; i < links.edgeCornerStart[e + 1]; i++) {
      const f = links.cornerFace[links.edgeCorners[i]];
      if (reached.has(f)) continue;
      reached.add(f);
      crossed.add(e);
      push(f);
    }
  }
}

/** The uncrossed edges, borders among them, without the branches that end nowhere. */
function pruned(mesh: Mesh, links: Connectivity, piece: Set<number>, isUncrossed: (e: number) => boolean) {
  const kept = new Set<number>();
  for (const f of piece) {
    for (const c of cornersOf(mesh, f)) if (isUncrossed(links.cornerEdge[c])) kept.add(links.cornerEdge[c]);
  }
  const degree = new Map<number, number>();
  const ends = (e: number) => [links.edgeVertices[2 * e], links.edgeVertices[2 * e + 1]];
  for (const e of kept) for (const v of ends(e)) degree.set(v, (degree.get(v) ?? 0) + 1);
  const loose = [...kept].filter((e) => ends(e).some((v) => degree.get(v) === 1));
  for (let e = loose.pop(); e !== undefined; e = loose.pop()) {
    if (!kept.delete(e)) continue;
    for (const v of ends(e)) {
      degree.set(v, (degree.get(v) as number) - 1);
      if (degree.get(v) !== 1) continue;
      for (let i = links.vertexEdgeStart[v]; i < links.vertexEdgeStart[v + 1]; i++) {
        if (kept.has(links.vertexEdges[i])) loose.push(links.vertexEdges[i]);
      }
    }
  }
  return kept;
}

function acrossBall(mesh: Mesh, links: Connectivity, piece: Set<number>): number[] {
  // On its own, so that many balls take no longer than their faces.
  const { own, ownLinks, edgeOf } = apart(mesh, links, piece);
  const length = (e: number) => edgeLength(own, ownLinks, e);
  const one = farthest(shortestPath(ownLinks, 0, undefined, length));
  const paths = shortestPath(ownLinks, one, undefined, length);
  const path = paths.edgesTo(farthest(paths));
  if (path.length > 1) return path.map(edgeOf);
  // One edge alone opens nothing: go on to a third vertex.
  const { edgeVertices, vertexEdges, vertexEdgeStart } = ownLinks;
  const [a, b] = [edgeVertices[2 * path[0]], edgeVertices[2 * path[0] + 1]];
  for (let i = vertexEdgeStart[b]; i < vertexEdgeStart[b + 1]; i++) {
    const e = vertexEdges[i];
    if (edgeVertices[2 * e] !== a && edgeVertices[2 * e + 1] !== a) return [...path, e].map(edgeOf);
  }
  return path.map(edgeOf);
}

/** Some faces as a mesh of their own, and the edge of the whole that each of its edges is. */
function apart(mesh: Mesh, links: Connectivity, piece: Set<number>) {
  const number = new Map<number, number>();
  const positions: number[] = [];
  const faceStart = [0];
  const cornerVertex: number[] = [];
  const corners: number[] = [];
  for (const f of piece) {
    for (const c of cornersOf(mesh, f)) {
      const v = mesh.cornerVertex[c];
      if (!number.has(v)) {
        number.set(v, number.size);
        positions.push(...mesh.positions.subarray(3 * v, 3 * v + 3));
      }
      cornerVertex.push(number.get(v) as number);
      corners.push(c);
    }
    faceStart.push(corners.length);
  }
  const own: Mesh = {
    positions: Float64Array.from(positions),
    faceStart: Uint32Array.from(faceStart),
    cornerVertex: Uint32Array.from(cornerVertex),
  };
  const ownLinks = connectivity(own);
  const edgeOf = (e: number) => links.cornerEdge[corners[ownLinks.edgeCorners[ownLinks.edgeCornerStart[e]]]];
  return { own, ownLinks, edgeOf };
}

function farthest({ cost }: Path): number {
  let best = -1;
  for (let v = 0; v < cost.length; v++) {
    if (Number.isFinite(cost[v]) && (best < 0 || cost[v] > cost[best])) best = v;
  }
  return best;
}
