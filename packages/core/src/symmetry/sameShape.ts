import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength } from '../select/shortestPath.ts';

/** How one piece became another: moved, turned, mirrored, scaled and numbered anew. */
export interface SameShape {
  /** Corner of the other piece for each corner of the first, in the order in which faces of the first come. */
  readonly corners: Uint32Array;
  readonly mirrored: boolean;
  /** Lengths of the other over those of the first. */
  readonly scale: number;
}

/** Corners of the other piece that are tried before it is given up: shapes alike in everything but one place are rare. */
const MOST_TRIED = 4000;

/**
 * Finds how one piece of a mesh equals another, if it does. A corner of the first that is rare by its face and the valence of its ends is laid
 * on each like it of the other, either way round; from there faces and corners follow from one another. It is the same shape when all
 * find a place and edges, and the ways of all vertices to four of them, are as long but for the scale.
 *
 * @param first, other  faces of each, every one of which hangs together over interior edges
 * @param tolerance  part of the size of a piece by which lengths may differ
 * @param ways  whether it may be as it is, mirrored, or either, which is tried in this order
 */
export function sameShape(
  mesh: Mesh,
  connectivity: Connectivity,
  first: Uint32Array,
  other: Uint32Array,
  tolerance: number,
  ways: readonly boolean[] = [false, true],
): SameShape | undefined {
  if (first.length !== other.length) return undefined;
  const [here, there] = [first, other].map((faces) => cornersOf(mesh, faces));
  if (here.length !== there.length) return undefined;
  const scale = lengthOf(mesh, connectivity, there) / lengthOf(mesh, connectivity, here);
  if (!(scale > 0) || !Number.isFinite(scale)) return undefined;
  const size = sizeOf(mesh, here);
  const { start, like } = rarest(mesh, connectivity, here, there);
  for (const candidate of like.slice(0, MOST_TRIED)) {
    for (const mirrored of ways) {
      const corners = follow(mesh, connectivity, here, start, candidate, mirrored, scale, tolerance * size);
      if (corners && liesAlike(mesh, here, corners, scale, tolerance * size))
        return { corners, mirrored, scale };
    }
  }
  return undefined;
}

const cornersOf = ({ faceStart }: Mesh, faces: Uint32Array): Uint32Array =>
  Uint32Array.from(
    [...faces].flatMap((f) =>
      Array.from({ length: faceStart[f + 1] - faceStart[f] }, (_, k) => faceStart[f] + k),
    ),
  );

const lengthOf = (mesh: Mesh, connectivity: Connectivity, corners: Uint32Array): number =>
  corners.reduce((sum, c) => sum + edgeLength(mesh, connectivity, connectivity.cornerEdge[c]), 0);

function sizeOf({ positions, cornerVertex }: Mesh, corners: Uint32Array): number {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const c of corners)
    for (let k = 0; k < 3; k++) {
      const x = positions[3 * cornerVertex[c] + k];
      low[k] = Math.min(low[k], x);
      high[k] = Math.max(high[k], x);
    }
  return Math.hypot(...low.map((x, k) => high[k] - x));
}

/** The corner whose kind is rarest, and those of its kind in the other piece, from which it may be seen either way round. */
function rarest(mesh: Mesh, connectivity: Connectivity, here: Uint32Array, there: Uint32Array) {
  const { faceStart, cornerVertex } = mesh;
  const valence = (v: number) => connectivity.vertexEdgeStart[v + 1] - connectivity.vertexEdgeStart[v];
  const kind = (c: number): string => {
    const f = connectivity.cornerFace[c];
    const ends = [valence(cornerVertex[c]), valence(cornerVertex[connectivity.nextCorner[c]])].sort(
      (a, b) => a - b,
    );
    return `${faceStart[f + 1] - faceStart[f]} ${ends.join(' ')} ${connectivity.isInterior[connectivity.cornerEdge[c]]}`;
  };
  const counts = new Map<string, number>();
  for (const c of here) counts.set(kind(c), (counts.get(kind(c)) ?? 0) + 1);
  const start = here.reduce((best, c) =>
    (counts.get(kind(c)) as number) < (counts.get(kind(best)) as number) ? c : best,
  );
  const wanted = kind(start);
  return { start, like: there.filter((c) => kind(c) === wanted) };
}

/** Lays one piece on the other from a corner on; undefined where they do not fit. */
function follow(
  mesh: Mesh,
  connectivity: Connectivity,
  here: Uint32Array,
  start: number,
  candidate: number,
  mirrored: boolean,
  scale: number,
  reach: number,
): Uint32Array | undefined {
  const { faceStart, cornerVertex } = mesh;
  const { cornerFace, cornerEdge, edgeCorners, edgeCornerStart, isInterior } = connectivity;
  const to = new Map<number, number>();
  const vertexTo = new Map<number, number>();
  const across = (c: number): number => {
    const e = cornerEdge[c];
    if (!isInterior[e]) return -1;
    const i = edgeCornerStart[e];
    return edgeCorners[i] === c ? edgeCorners[i + 1] : edgeCorners[i];
  };
  /** Side c of a face goes from its corner c to the next; mirrored, onto the side that comes back there. */
  const left: [number, number][] = [[start, candidate]];
  for (let pair = left.pop(); pair; pair = left.pop()) {
    const [c, d] = pair;
    const [f, g] = [cornerFace[c], cornerFace[d]];
    const n = faceStart[f + 1] - faceStart[f];
    if (faceStart[g + 1] - faceStart[g] !== n) return undefined;
    const place = (face: number, from: number, k: number) =>
      faceStart[face] + ((((from - faceStart[face] + k) % n) + n) % n);
    // The corner at the beginning of side c, which mirrored is the one at the end of side d.
    const first = mirrored ? place(g, d, 1) : d;
    const known = to.get(c);
    if (known !== undefined) {
      if (known !== first) return undefined;
      continue;
    }
    for (let k = 0; k < n; k++) {
      const from = place(f, c, k);
      const onto = place(g, first, mirrored ? -k : k);
      const [v, w] = [cornerVertex[from], cornerVertex[onto]];
      if ((vertexTo.get(v) ?? w) !== w) return undefined;
      vertexTo.set(v, w);
      to.set(from, onto);
      // Sides, as long as one another.
      const side = mirrored ? place(g, onto, -1) : onto;
      if (isInterior[cornerEdge[from]] !== isInterior[cornerEdge[side]]) return undefined;
      const far = Math.abs(
        edgeLength(mesh, connectivity, cornerEdge[from]) -
          edgeLength(mesh, connectivity, cornerEdge[side]) / scale,
      );
      if (far > reach) return undefined;
      const [beyond, over] = [across(from), across(side)];
      if (beyond >= 0) left.push([beyond, over]);
    }
  }
  return to.size === here.length ? Uint32Array.from(here, (c) => to.get(c) as number) : undefined;
}

/** Whether all vertices lie as far from four of them as their counterparts do. */
function liesAlike(
  { positions, cornerVertex }: Mesh,
  here: Uint32Array,
  there: Uint32Array,
  scale: number,
  reach: number,
): boolean {
  const distance = (a: number, b: number): number =>
    Math.hypot(...[0, 1, 2].map((k) => positions[3 * a + k] - positions[3 * b + k]));
  const anchors: number[] = [0];
  // Far from one another, so that they span the piece.
  for (let k = 1; k < 4; k++) {
    let best = 0;
    let most = -1;
    here.forEach((c, i) => {
      const near = Math.min(...anchors.map((a) => distance(cornerVertex[c], cornerVertex[here[a]])));
      if (near > most) [best, most] = [i, near];
    });
    anchors.push(best);
  }
  return here.every((c, i) =>
    anchors.every((a) => {
      const own = distance(cornerVertex[c], cornerVertex[here[a]]);
      const theirs = distance(cornerVertex[there[i]], cornerVertex[there[a]]) / scale;
      return Math.abs(own - theirs) <= reach;
    }),
  );
}
