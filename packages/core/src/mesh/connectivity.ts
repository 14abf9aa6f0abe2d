import { cornerCount, cornerFaces, faceCount, type Mesh, vertexCount } from './mesh.ts';

/**
 * Which edges a mesh has and what meets at them. Any number of faces may meet at an edge; only an
 * edge where exactly two faces of agreeing winding meet is *interior*. All others are borders for
 * every purpose of cutting and unfolding, so no real file can break what is built on top.
 */
export interface Connectivity {
  /** Two vertices of each edge, the smaller first: `2 × edgeCount`. */
  readonly edgeVertices: Uint32Array;
  /** Edge from each corner to the next corner of its face. */
  readonly cornerEdge: Uint32Array;
  /** Corners whose edge is e: `edgeCorners[edgeCornerStart[e] … edgeCornerStart[e + 1]]`. */
  readonly edgeCornerStart: Uint32Array;
  readonly edgeCorners: Uint32Array;
  /** 1 where exactly two different faces of agreeing winding meet. */
  readonly isInterior: Uint8Array;
  /** Face of each corner. */
  readonly cornerFace: Uint32Array;
  /** The next corner round the same face. */
  readonly nextCorner: Uint32Array;
  /** Edges at vertex v: `vertexEdges[vertexEdgeStart[v] … vertexEdgeStart[v + 1]]`. */
  readonly vertexEdgeStart: Uint32Array;
  readonly vertexEdges: Uint32Array;
}

/** Builds the edges of a mesh in time linear in its corners. */
export function connectivityOf(mesh: Mesh): Connectivity {
  const corners = cornerCount(mesh);
  const cornerFace = cornerFaces(mesh);
  const nextCorner = new Uint32Array(corners);
  for (let f = 0; f < faceCount(mesh); f++) {
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) nextCorner[c] = c + 1;
    nextCorner[mesh.faceStart[f + 1] - 1] = mesh.faceStart[f];
  }

  const { edgeVertices, cornerEdge } = numberEdges(mesh, nextCorner);
  const edgeCount = edgeVertices.length / 2;
  const { start: edgeCornerStart, items: edgeCorners } = bucket(cornerEdge, edgeCount);

  const isInterior = new Uint8Array(edgeCount);
  for (let e = 0; e < edgeCount; e++) {
    const first = edgeCornerStart[e];
    if (edgeCornerStart[e + 1] - first !== 2) continue;
    const a = edgeCorners[first];
    const b = edgeCorners[first + 1];
    const opposed = mesh.cornerVertex[a] === mesh.cornerVertex[nextCorner[b]];
    isInterior[e] =
      opposed && cornerFace[a] !== cornerFace[b] && edgeVertices[2 * e] !== edgeVertices[2 * e + 1] ? 1 : 0;
  }

  const ends = bucket(edgeVertices, vertexCount(mesh));
  const vertexEdges = ends.items.map((slot) => slot >> 1);
  return {
    edgeVertices,
    cornerEdge,
    edgeCornerStart,
    edgeCorners,
    isInterior,
    cornerFace,
    nextCorner,
    vertexEdgeStart: ends.start,
    vertexEdges,
  };
}

const NOT_YET = 0xffffffff;

/** Gives every unordered pair of neighbouring vertices one number. */
function numberEdges(mesh: Mesh, nextCorner: Uint32Array) {
  const { cornerVertex } = mesh;
  const corners = cornerVertex.length;
  const lower = new Uint32Array(corners);
  for (let c = 0; c < corners; c++) lower[c] = Math.min(cornerVertex[c], cornerVertex[nextCorner[c]]);
  const { start, items } = bucket(lower, vertexCount(mesh));

  const cornerEdge = new Uint32Array(corners);
  const pairs = new Uint32Array(2 * corners);
  let edgeCount = 0;
  // The edge to each upper vertex, and from which lower one: what many faces share costs no more than the faces.
  const edgeTo = new Uint32Array(vertexCount(mesh));
  const edgeFrom = new Uint32Array(vertexCount(mesh)).fill(NOT_YET);
  for (let v = 0; v + 1 < start.length; v++) {
    for (let i = start[v]; i < start[v + 1]; i++) {
      const c = items[i];
      const upper = Math.max(cornerVertex[c], cornerVertex[nextCorner[c]]);
      if (edgeFrom[upper] !== v) {
        edgeFrom[upper] = v;
        edgeTo[upper] = edgeCount;
        pairs[2 * edgeCount] = v;
        pairs[2 * edgeCount + 1] = upper;
        edgeCount++;
      }
      cornerEdge[c] = edgeTo[upper];
    }
  }
  return { edgeVertices: pairs.slice(0, 2 * edgeCount), cornerEdge };
}

/**
 * Counting sort: the indices of `keys`, grouped by key in order.
 *
 * @param keys  each in `0 … bucketCount - 1`
 */
export function bucket(keys: Uint32Array, bucketCount: number): { start: Uint32Array; items: Uint32Array } {
  const start = new Uint32Array(bucketCount + 1);
  for (let i = 0; i < keys.length; i++) start[keys[i] + 1]++;
  for (let b = 0; b < bucketCount; b++) start[b + 1] += start[b];
  const next = start.slice(0, bucketCount);
  const items = new Uint32Array(keys.length);
  for (let i = 0; i < keys.length; i++) items[next[keys[i]]++] = i;
  return { start, items };
}

/** The edge between two vertices, or -1. */
export function findEdge(connectivity: Connectivity, a: number, b: number): number {
  const { edgeVertices, vertexEdgeStart, vertexEdges } = connectivity;
  const edges = (v: number) => vertexEdgeStart[v + 1] - vertexEdgeStart[v];
  // From where fewer meet: the hub of a fan has them all.
  const [from, to] = edges(a) <= edges(b) ? [a, b] : [b, a];
  for (let i = vertexEdgeStart[from]; i < vertexEdgeStart[from + 1]; i++) {
    const e = vertexEdges[i];
    if (edgeVertices[2 * e] + edgeVertices[2 * e + 1] - from === to) return e;
  }
  return -1;
}
