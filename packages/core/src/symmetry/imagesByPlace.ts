import type { Connectivity } from '../mesh/connectivity.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { pointGrid } from '../mesh/pointGrid.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';
import { straightRing } from '../select/straightRing.ts';
import { type Way, wayThrough } from '../select/wayThrough.ts';
import { meanEdge } from './counterparts.ts';
import { type Isometry, imageOf } from './isometry.ts';

export interface ImagesByPlace {
  readonly items: readonly number[];
  /** Greatest distance between where something goes and what was found there, model units. */
  readonly off: number;
}

/** A vertex that goes so near to one of the edges given, as a part of the length of edges, goes onto it: these are their own image there. */
const OWN = 1;
/** What the edges given cost, as a part of their length, so that the image keeps to them where it goes onto them. */
const OWN_COST = 0.5;
/** How far, in edges, the image of a run may leave the places it leads through. */
const REACH = 2;

/**
 * The image of edges on a surface whose two sides are triangulated differently: each run of them leads through the vertices nearest to where its own
 * go, by the shortest way from one to the next, and is then run straight. What goes onto itself within an edge, as what lies on the mirror
 * plane does and a ring right across it, is its own image: a second run beside the first would cut slivers.
 *
 * @param isometry  what takes a place to its image
 */
export function edgesByPlace(
  mesh: Mesh,
  connectivity: Connectivity,
  isometry: Isometry,
  edges: Iterable<number>,
): ImagesByPlace {
  const { positions } = mesh;
  const own = new Set(edges);
  const reach = meanEdge(mesh, connectivity) || 1;
  const nearest = nearestPoint(positions, reach, Array(positions.length / 3).keys());
  const nearOwn = pointNear(positions, reach, endsOf(connectivity, own));
  const lengthOf = (e: number) => edgeLength(mesh, connectivity, e);
  const found = new Set<number>();
  const imageOfVertex = (v: number): number => {
    const place = imageOf(isometry, positions, v);
    const [same, distance] = nearOwn(place);
    return distance < OWN * meanLengthAt(mesh, connectivity, v) ? same : nearest(place)[0];
  };
  for (const run of runsOfEdges(connectivity, own)) {
    const places = run.vertices.map(imageOfVertex).filter((v) => v >= 0);
    const way = wayThrough(connectivity, places, (e) => (own.has(e) ? OWN_COST : 1) * lengthOf(e));
    if (way.closed && !way.edges.some((e) => own.has(e))) {
      for (const e of straightRing(mesh, connectivity, way.start, way.edges, lengthOf, { reach: REACH }))
        found.add(e);
      continue;
    }
    for (const e of way.edges) if (own.has(e)) found.add(e);
    for (const piece of apartFrom(connectivity, way, own))
      for (const e of straightenPath(mesh, connectivity, piece.start, piece.edges, lengthOf, {
        reach: REACH,
      }))
        found.add(e);
  }
  const nearestFound = nearestPoint(positions, reach, endsOf(connectivity, found));
  let off = 0;
  if (found.size > 0)
    for (const v of endsOf(connectivity, own))
      off = Math.max(off, nearestFound(imageOf(isometry, positions, v))[1]);
  return { items: [...found], off };
}

/** The faces whose middles are nearest to where those of some faces go, and that look the same way there. */
export function facesByPlace(
  mesh: Mesh,
  connectivity: Connectivity,
  isometry: Isometry,
  faces: Iterable<number>,
): ImagesByPlace {
  const count = faceCount(mesh);
  const middles = new Float64Array(3 * count);
  for (let f = 0; f < count; f++) {
    const [first, end] = [mesh.faceStart[f], mesh.faceStart[f + 1]];
    for (let c = first; c < end; c++)
      for (let k = 0; k < 3; k++)
        middles[3 * f + k] += mesh.positions[3 * mesh.cornerVertex[c] + k] / (end - first);
  }
  const nearest = nearestPoint(middles, meanEdge(mesh, connectivity) || 1, Array(count).keys());
  const found = new Set<number>();
  let off = 0;
  for (const f of faces) {
    const [image, distance] = nearest(imageOf(isometry, middles, f));
    if (image < 0 || looksBack(mesh, isometry, f, image)) continue;
    found.add(image);
    off = Math.max(off, distance);
  }
  return { items: [...found], off };
}

/** Whether a face looks the other way than the image of another would. */
function looksBack(mesh: Mesh, m: Isometry, face: number, image: number): boolean {
  const [x, y, z] = faceNormal(mesh, face);
  const other = faceNormal(mesh, image);
  const turned = [0, 4, 8].map((i) => m[i] * x + m[i + 1] * y + m[i + 2] * z);
  return turned[0] * other[0] + turned[1] * other[1] + turned[2] * other[2] < 0;
}

/** The pieces of a way that do not run along some edges, in order. */
function apartFrom(connectivity: Connectivity, { start, edges }: Way, own: ReadonlySet<number>): Way[] {
  const { edgeVertices } = connectivity;
  const pieces: { start: number; edges: number[]; closed: boolean }[] = [];
  let [at, isApart] = [start, false];
  for (const e of edges) {
    if (own.has(e)) isApart = false;
    else if (isApart) pieces[pieces.length - 1].edges.push(e);
    else {
      pieces.push({ start: at, edges: [e], closed: false });
      isApart = true;
    }
    at = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - at;
  }
  return pieces;
}

function endsOf(connectivity: Connectivity, edges: Iterable<number>): Set<number> {
  const ends = new Set<number>();
  for (const e of edges) for (const k of [0, 1]) ends.add(connectivity.edgeVertices[2 * e + k]);
  return ends;
}

type Place = readonly [number, number, number];

/** The one of some points that is nearest to a place, and how far it is. */
function nearestPoint(positions: Float64Array, reach: number, points: Iterable<number>) {
  const some = [...points];
  const near = pointNear(positions, reach, some);
  return (place: Place): [point: number, distance: number] => {
    const found = near(place);
    if (found[1] <= reach) return found;
    // Farther than the grid reaches: where triangles are large, or nothing is there.
    let [best, least] = found;
    for (const v of some) {
      const d = distanceTo(positions, v, place);
      if (d < least) [best, least] = [v, d];
    }
    return [best, least];
  };
}

/** The same where it is within reach, else perhaps −1 and ∞. */
function pointNear(positions: Float64Array, reach: number, points: Iterable<number>) {
  const grid = pointGrid(positions, points, reach);
  return (place: Place): [point: number, distance: number] => {
    let [best, least] = [-1, Infinity];
    grid.near(...place, (v) => {
      const d = distanceTo(positions, v, place);
      if (d < least) [best, least] = [v, d];
    });
    return [best, least];
  };
}

const distanceTo = (p: Float64Array, v: number, [x, y, z]: Place): number =>
  Math.hypot(p[3 * v] - x, p[3 * v + 1] - y, p[3 * v + 2] - z);

function meanLengthAt(mesh: Mesh, connectivity: Connectivity, v: number): number {
  const { vertexEdges, vertexEdgeStart } = connectivity;
  let sum = 0;
  for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
    sum += edgeLength(mesh, connectivity, vertexEdges[i]);
  return sum / (vertexEdgeStart[v + 1] - vertexEdgeStart[v] || 1);
}
