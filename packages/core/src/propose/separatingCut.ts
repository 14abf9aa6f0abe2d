import { disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import { triangleEdges } from '../mesh/triangleEdges.ts';
import { growingPath } from '../select/shortestPath.ts';
import { borders } from '../surface/borders.ts';
import type { cuttable } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';

/**
 * A cut that parts two regions of a disc which lie on each other in the flat: of all ways from the border between them, on the one side, to
 * the border between them on the other, around both, the one that costs least. The two end in different shells, which can lie apart.
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
  const { triangles } = shell;
  const vertices = shell.positions.length / 3;
  const regions = overlappingRegions(shell, overlaps);
  if (!regions) return [];
  const [loop] = borders(triangles, vertices).loops;
  const region = new Uint8Array(vertices);
  regions.forEach((list, r) => {
    for (const t of list) for (let k = 0; k < 3; k++) region[triangles[3 * t + k]] = r + 1;
  });
  const sides = betweenRegions([...loop].map((v) => region[v]));
  if (!sides) return [];
  const [one, other] = sides.map((places) => places.map((i) => loop[i]));
  const onBorder = new Uint8Array(vertices);
  for (const v of loop) onBorder[v] = 1;
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
  return best < 0 || paths.cost[best] === Infinity ? [] : paths.edgesTo(best);
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
