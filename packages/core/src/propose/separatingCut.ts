import type { Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import { triangleEdges } from '../mesh/triangleEdges.ts';
import { growingPath } from '../select/shortestPath.ts';
import { surfaceArea } from '../surface/areas.ts';
import { borders } from '../surface/borders.ts';
import type { cuttable } from '../surface/cutShell.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import type { Shell } from '../surface/shell.ts';

/**
 * A cut that parts two regions of a disc which lie on each other in the flat: of all ways from the border between them, on the one side, to
 * the border between them on the other, around both, the one that costs least. The two end in different shells, which can lie apart.
 *
 * A region that is not on the border counts with the shortest way to it, and where all overlaps hang together, the two triangles of them that
 * are farthest apart on the surface count as regions.
 *
 * @param overlaps  pairs of triangles, two a pair
 * @param costOf  what a cut along an edge costs
 * @returns edges of the shell; none where no way leads between them
 */
export function separatingCut(
  shell: Shell,
  { links }: ReturnType<typeof cuttable>,
  overlaps: Uint32Array,
  costOf: (edge: number) => number,
): number[] {
  const { triangles, positions } = shell;
  const size = Math.sqrt(surfaceArea(positions, triangles));
  const corners = (list: readonly number[]) => list.flatMap((t) => [...triangles.subarray(3 * t, 3 * t + 3)]);
  const ways = [
    () => overlappingRegions(shell, overlaps)?.map(corners),
    () => farthestPair(shell, overlaps)?.map(corners),
    // Beside a narrow cut there may be no room but between two points.
    () => farthestPair(shell, overlaps)?.map((list) => corners(list).slice(0, 1)),
  ];
  for (const way of ways) {
    const regions = way();
    if (!regions) continue;
    const distances = regions.map((region) => distanceFrom(positions, triangles, region));
    for (const margin of MARGINS) {
      const region = grownRegions(links, distances, margin * size);
      const found = region && cutBetween(shell, links, region, costOf);
      if (found) return found;
    }
  }
  return [];
}

/** Regions are taken along with so much round them, as parts of the root of the surface, that no sliver is cut off; less where there is no room. */
const MARGINS = [0.2, 0.1, 0.05, 0.02, 0];

/**
 * What is near one of two regions, 1, and near the other, 2, of every vertex.
 *
 * @returns undefined where they touch
 */
function grownRegions(
  { edgeVertices }: Connectivity,
  [one, other]: readonly Float64Array[],
  margin: number,
): Uint8Array | undefined {
  const region = Uint8Array.from(one, (d, v) => (Math.min(d, other[v]) > margin ? 0 : d <= other[v] ? 1 : 2));
  if (margin === 0) return region;
  for (let i = 0; i < edgeVertices.length; i += 2)
    if (region[edgeVertices[i]] + region[edgeVertices[i + 1]] === 3) return undefined;
  return region;
}

/** The cut between two regions that costs least, from border to border; undefined where there is none. */
function cutBetween(
  { triangles, positions }: Shell,
  links: Connectivity,
  region: Uint8Array,
  costOf: (edge: number) => number,
): number[] | undefined {
  const [loop] = borders(triangles, positions.length / 3).loops;
  const onBorder = new Uint8Array(region.length);
  for (const v of loop) onBorder[v] = 1;
  for (const r of [1, 2]) reachBorder(links, region, r, onBorder);
  const sides = betweenRegions([...loop].map((v) => region[v]));
  if (!sides) return undefined;
  const [one, other] = sides.map((places) => places.map((i) => loop[i]));
  const ends = new Set(other);
  const isBarred = (v: number): boolean => region[v] > 0 || (onBorder[v] === 1 && !ends.has(v));
  const ownEnds = new Set(one);
  const { edgeVertices, joined } = links;
  const paths = growingPath(links, one, (e) => {
    const [a, b] = [edgeVertices[2 * e], edgeVertices[2 * e + 1]];
    const bars = (v: number) => isBarred(v) && !ownEnds.has(v);
    return joined[e] && !bars(a) && !bars(b) ? costOf(e) : Infinity;
  });
  paths.grow();
  let best = -1;
  for (const v of other) if (best < 0 || paths.cost[v] < paths.cost[best]) best = v;
  return best < 0 || paths.cost[best] === Infinity ? undefined : paths.edgesTo(best);
}

/** The two connected sets of triangles with the most pairs between them. */
function overlappingRegions(
  { triangles, positions }: Shell,
  pairs: Uint32Array,
): [number[], number[]] | undefined {
  const involved = new Set(pairs);
  const { upper, sideEdge } = triangleEdges(triangles, positions.length / 3);
  const sets = disjointSets(triangles.length / 3);
  const first = new Int32Array(upper.length).fill(-1);
  for (let side = 0; side < triangles.length; side++) {
    const t = Math.floor(side / 3);
    if (!involved.has(t)) continue;
    const e = sideEdge[side];
    if (first[e] < 0) first[e] = t;
    else unite(sets, first[e], t);
  }
  const { label } = numberSets(sets);
  const counts = new Map<string, number>();
  for (let i = 0; i < pairs.length; i += 2) {
    const [a, b] = [label[pairs[i]], label[pairs[i + 1]]].sort((p, q) => p - q);
    if (a !== b) counts.set(`${a} ${b}`, (counts.get(`${a} ${b}`) ?? 0) + 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  if (!most) return undefined;
  const [a, b] = most[0].split(' ').map(Number);
  const of = (wanted: number) => [...involved].filter((t) => label[t] === wanted);
  return [of(a), of(b)];
}

/** Two regions that lie on each other; where all hangs together, the triangle that lies on most others. */
export function regionsOnEachOther(piece: Shell, overlaps: Uint32Array): number[][] {
  const regions = overlappingRegions(piece, overlaps);
  if (regions) return regions;
  const times = new Map<number, number>();
  for (const t of overlaps) times.set(t, (times.get(t) ?? 0) + 1);
  const [[most]] = [...times].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  return [[most]];
}

/** The two triangles that lie on each other and are farthest apart, in triangles from one to the next. */
function farthestPair({ triangles, positions }: Shell, pairs: Uint32Array): [number[], number[]] | undefined {
  const { upper, sideEdge } = triangleEdges(triangles, positions.length / 3);
  const beside = new Int32Array(2 * upper.length).fill(-1);
  for (let side = 0; side < triangles.length; side++) {
    const e = sideEdge[side];
    beside[beside[2 * e] < 0 ? 2 * e : 2 * e + 1] = Math.floor(side / 3);
  }
  const partners = new Map<number, number[]>();
  for (let i = 0; i < pairs.length; i += 2)
    partners.set(pairs[i], [...(partners.get(pairs[i]) ?? []), pairs[i + 1]]);
  let [best, most]: [[number[], number[]] | undefined, number] = [undefined, 0];
  // Of many, some tell enough.
  const every = Math.ceil(partners.size / MOST_SEARCHED);
  [...partners].forEach(([start, others], i) => {
    if (i % every !== 0) return;
    const far = new Int32Array(triangles.length / 3).fill(-1);
    far[start] = 0;
    const reached = [start];
    for (const t of reached)
      for (let k = 0; k < 3; k++) {
        const e = sideEdge[3 * t + k];
        const next = beside[2 * e] + beside[2 * e + 1] - t;
        if (beside[2 * e + 1] < 0 || far[next] >= 0) continue;
        far[next] = far[t] + 1;
        reached.push(next);
      }
    for (const other of others) if (far[other] > most) [best, most] = [[[start], [other]], far[other]];
  });
  return best;
}

/** Triangles from which the one farthest away is sought. */
const MOST_SEARCHED = 40;

/** Adds the shortest way to the border to a region that is not on it; round the other one, if there is a way. */
function reachBorder(
  { edgeVertices, vertexEdges, vertexEdgeStart }: Connectivity,
  region: Uint8Array,
  own: number,
  onBorder: Uint8Array,
): void {
  const reached = [...region.keys()].filter((v) => region[v] === own);
  if (reached.some((v) => onBorder[v])) return;
  const from = new Map<number, number>(reached.map((v) => [v, -1]));
  for (const v of reached) {
    if (onBorder[v]) {
      for (let at = v; at >= 0; at = from.get(at) ?? -1) region[at] = own;
      return;
    }
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) {
      const w = edgeVertices[2 * vertexEdges[i]] + edgeVertices[2 * vertexEdges[i] + 1] - v;
      if (from.has(w) || region[w] !== 0) continue;
      from.set(w, v);
      reached.push(w);
    }
  }
}

/** Places of a loop between its regions 1 and 2, on either side; undefined where one of them is not on it, or nothing lies between. */
function betweenRegions(region: readonly number[]): [number[], number[]] | undefined {
  const n = region.length;
  const start = region.indexOf(1);
  if (start < 0 || !region.includes(2)) return undefined;
  // From a place of the first region round: what follows the first until the second, and what follows the second until the first.
  const sides: [number[], number[]] = [[], []];
  let last = 1;
  let pending: number[] = [];
  for (let i = 1; i <= n; i++) {
    const at = (start + i) % n;
    const here = region[at];
    if (here === 0) pending.push(at);
    else {
      if (here !== last) sides[last - 1].push(...pending);
      pending = [];
      last = here;
    }
  }
  return sides[0].length > 0 && sides[1].length > 0 ? sides : undefined;
}
