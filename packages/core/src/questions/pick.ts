import type { FaceTree, PointOf } from '../derived/trees.ts';
import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { pointAt } from '../select/targets/points.ts';

/** What lies under a pointer. */
export interface Pick {
  readonly face: number;
  /** The edge of the face that is nearest. */
  readonly edge: number;
  /** The vertex of the face that is nearest. */
  readonly vertex: number;
  /** The point of the flat there: see `points`. */
  readonly point: number;
  readonly shell: number;
  /** Where the ray met the surface; on the Board u, v, 0. */
  readonly place: readonly [number, number, number];
}

/** What a ray meets first. */
export function pickAlong(
  document: HemDocument,
  { cast, faceOf }: FaceTree,
  pointOf: PointOf,
  origin: readonly number[],
  direction: readonly number[],
  isMet?: (face: number) => boolean,
): Pick | undefined {
  const hit = cast(origin, direction, isMet && ((t) => isMet(faceOf[t])));
  if (!hit) return undefined;
  const { mesh, connectivity } = topologyOf(document.model);
  const face = faceOf[hit.triangle];
  let edge = connectivity.cornerEdge[mesh.faceStart[face]];
  let corner = mesh.faceStart[face];
  let least = Infinity;
  let nearest = Infinity;
  for (let c = mesh.faceStart[face]; c < mesh.faceStart[face + 1]; c++) {
    const at = pointOf(c);
    const length = distanceToSegment(hit.point, at, pointOf(connectivity.nextCorner[c]));
    const far = Math.hypot(at[0] - hit.point[0], at[1] - hit.point[1], at[2] - hit.point[2]);
    if (far < nearest) {
      nearest = far;
      corner = c;
    }
    if (length < least) {
      least = length;
      edge = connectivity.cornerEdge[c];
    }
  }
  const shells = shellsOf(document);
  return {
    face,
    edge,
    vertex: mesh.cornerVertex[corner],
    point: pointAt(shells, corner),
    shell: shells.faceShell[face],
    place: hit.point,
  };
}

type Point = readonly [number, number, number];

function distanceToSegment(p: Point, a: Point, b: Point): number {
  const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const square = d[0] * d[0] + d[1] * d[1] + d[2] * d[2] || 1;
  const along = ((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1] + (p[2] - a[2]) * d[2]) / square;
  const t = Math.max(0, Math.min(1, along));
  return Math.hypot(p[0] - a[0] - t * d[0], p[1] - a[1] - t * d[1], p[2] - a[2] - t * d[2]);
}
