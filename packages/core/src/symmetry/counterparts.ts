import { type Connectivity, findEdge } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { pointGrid } from '../mesh/pointGrid.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { type Isometry, imageOf, reverses } from './isometry.ts';

/** A point is surely the counterpart of another when it lies within this part of the length of edges of where that one goes. */
const SURE = 0.02;
/** Found by way of neighbours, it may lie this much farther off: sculpting hands are not exact. */
const LOOSE = 1.5;

/** What each element of a mesh becomes under a symmetry; -1 where it has no counterpart. */
export interface Counterparts {
  readonly vertices: Int32Array;
  readonly edges: Int32Array;
  readonly faces: Int32Array;
}

/**
 * Matches a mesh with its own image: vertices that fall on one another are sure pairs; from faces that have two of them the match is
 * carried on over edges from face to face, so that it holds by the way faces hang together where positions are not exact.
 */
export function counterparts(mesh: Mesh, connectivity: Connectivity, isometry: Isometry): Counterparts {
  const vertices = surePairs(mesh, connectivity, isometry);
  carryOn(mesh, connectivity, isometry, vertices);
  const edges = new Int32Array(connectivity.isInterior.length).fill(-1);
  for (let e = 0; e < edges.length; e++) {
    const a = vertices[connectivity.edgeVertices[2 * e]];
    const b = vertices[connectivity.edgeVertices[2 * e + 1]];
    if (a >= 0 && b >= 0 && a !== b) edges[e] = findEdge(connectivity, a, b);
  }
  return { vertices, edges, faces: facesOf(mesh, connectivity, vertices) };
}

/** Mean length of edges. */
export function meanEdge(mesh: Mesh, connectivity: Connectivity): number {
  let sum = 0;
  for (let e = 0; e < connectivity.isInterior.length; e++) sum += edgeLength(mesh, connectivity, e);
  return sum / (connectivity.isInterior.length || 1);
}

function surePairs(mesh: Mesh, connectivity: Connectivity, isometry: Isometry): Int32Array {
  const { positions } = mesh;
  const count = positions.length / 3;
  const reach = SURE * meanEdge(mesh, connectivity) || 1;
  const grid = pointGrid(positions, Array(count).keys(), reach);
  const to = new Int32Array(count).fill(-1);
  const taken = new Uint8Array(count);
  for (let v = 0; v < count; v++) {
    const image = imageOf(isometry, positions, v);
    let least = reach;
    grid.near(...image, (w) => {
      const d = distanceTo(positions, w, image);
      if (d <= least) {
        least = d;
        to[v] = w;
      }
    });
    if (to[v] >= 0 && taken[to[v]]++) to[v] = -1;
  }
  return to;
}

const distanceTo = (
  positions: Float64Array,
  v: number,
  [x, y, z]: readonly [number, number, number],
): number => Math.hypot(positions[3 * v] - x, positions[3 * v + 1] - y, positions[3 * v + 2] - z);

/** From faces with two matched neighbours round to the rest of them, and over their edges to the next. */
function carryOn(mesh: Mesh, connectivity: Connectivity, isometry: Isometry, to: Int32Array): void {
  const { faceStart, cornerVertex, positions } = mesh;
  const { cornerEdge, cornerFace, edgeCorners, edgeCornerStart, nextCorner } = connectivity;
  const backwards = reverses(isometry);
  const near = LOOSE * meanEdge(mesh, connectivity);
  const taken = new Uint8Array(to.length);
  for (const w of to) if (w >= 0) taken[w] = 1;
  const done = new Uint8Array(faceStart.length - 1);
  const queue = Array.from({ length: cornerVertex.length }, (_, c) => c);
  for (let c = queue.pop(); c !== undefined; c = queue.pop()) {
    if (done[cornerFace[c]]) continue;
    const a = to[cornerVertex[c]];
    const b = to[cornerVertex[nextCorner[c]]];
    if (a < 0 || b < 0) continue;
    const e = findEdge(connectivity, a, b);
    if (e < 0) continue;
    // The corner across whose face lies where this one's goes.
    let other = -1;
    for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++)
      if (cornerVertex[edgeCorners[i]] === (backwards ? b : a)) other = edgeCorners[i];
    if (other < 0) continue;
    const f = cornerFace[c];
    const size = faceStart[f + 1] - faceStart[f];
    const g = cornerFace[other];
    if (faceStart[g + 1] - faceStart[g] !== size) continue;
    done[f] = 1;
    const at = (face: number, from: number, k: number) =>
      faceStart[face] + ((((from - faceStart[face] + k) % size) + size) % size);
    for (let k = 0; k < size; k++) {
      const v = cornerVertex[at(f, c, k)];
      const w = cornerVertex[at(g, other, backwards ? 1 - k : k)];
      if (to[v] < 0 && !taken[w] && distanceTo(positions, w, imageOf(isometry, positions, v)) < near) {
        to[v] = w;
        taken[w] = 1;
      }
    }
    for (let k = faceStart[f]; k < faceStart[f + 1]; k++)
      for (let i = edgeCornerStart[cornerEdge[k]]; i < edgeCornerStart[cornerEdge[k] + 1]; i++)
        if (!done[cornerFace[edgeCorners[i]]]) queue.push(edgeCorners[i]);
  }
}

/** A face has a counterpart when one face has the counterparts of all of its vertices. */
function facesOf({ faceStart, cornerVertex }: Mesh, connectivity: Connectivity, to: Int32Array): Int32Array {
  const faces = new Int32Array(faceStart.length - 1).fill(-1);
  for (let f = 0; f < faces.length; f++) {
    const wanted = new Set<number>();
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) wanted.add(to[cornerVertex[c]]);
    const e = findEdgeOf(connectivity, to[cornerVertex[faceStart[f]]], to[cornerVertex[faceStart[f] + 1]]);
    if (wanted.has(-1) || e < 0) continue;
    for (let i = connectivity.edgeCornerStart[e]; i < connectivity.edgeCornerStart[e + 1]; i++) {
      const g = connectivity.cornerFace[connectivity.edgeCorners[i]];
      const corners = cornerVertex.subarray(faceStart[g], faceStart[g + 1]);
      if (corners.length === faceStart[f + 1] - faceStart[f] && corners.every((v) => wanted.has(v)))
        faces[f] = g;
    }
  }
  return faces;
}

const findEdgeOf = (connectivity: Connectivity, a: number, b: number): number =>
  a < 0 || b < 0 ? -1 : findEdge(connectivity, a, b);
