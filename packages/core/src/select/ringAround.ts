import type { Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, findRoot, numberSets, unite } from '../mesh/disjointSets.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { edgeLength, type Path, shortestPath } from './shortestPath.ts';

/**
 * A ring goes round something when its length squared is below this part of 4 π times the area on either side: a flat disc has 1, a ball cut in
 * half has ½, and the end of a finger has less the longer it is.
 */
const TIGHT = 0.4;

/**
 * The tightest closed ring of edges through a vertex that goes round something: an arm, a finger, a neck, a sleeve, a handle. Of the loops
 * that one edge closes over the tree of shortest ways from the vertex, it is the shortest that does not separate the surface, or parts one
 * border from another, or parts off far more surface on either side than a flat disc with its border has. What lies on the sides is read
 * off a dual tree, each edge of which crosses one loop; edges in neither tree close loops round handles, the shortest first (tree and
 * cotree: Eppstein 2003; Erickson and Whittlesey 2005).
 *
 * @returns edges in order, from the vertex round to it; none where there is nothing to go round
 */
export function ringAround(mesh: Mesh, links: Connectivity, vertex: number): number[] {
  const paths = shortestPath(links, vertex, undefined, (e) => edgeLength(mesh, links, e));
  const lengthOf = (e: number): number =>
    paths.cost[links.edgeVertices[2 * e]] +
    paths.cost[links.edgeVertices[2 * e + 1]] +
    edgeLength(mesh, links, e);
  const branch = branches(links, paths, vertex);
  const isLoop = (e: number): boolean =>
    branch[links.edgeVertices[2 * e]] !== branch[links.edgeVertices[2 * e + 1]];

  const dual = dualEdges(mesh, links, paths, lengthOf);
  const { tree, rest } = spanningTree(dual);
  const sides = sidesOf(mesh, dual, tree, rest);
  let best = -1;
  let least = Infinity;
  const offer = (e: number): void => {
    if (lengthOf(e) < least && isLoop(e)) [best, least] = [e, lengthOf(e)];
  };
  for (const d of rest) offer(dual.edge[d]);
  for (const d of tree) {
    const length = lengthOf(dual.edge[d]);
    if (length < least && (sides.isEssential(d) || length ** 2 < TIGHT * 4 * Math.PI * sides.smaller(d)))
      offer(dual.edge[d]);
  }
  if (best < 0) return [];
  const [a, b] = [links.edgeVertices[2 * best], links.edgeVertices[2 * best + 1]];
  return [...paths.edgesTo(a), best, ...paths.edgesTo(b).reverse()];
}

/** The first vertex after the start on the way to each: two ways from different ones meet nowhere else. The start has itself. */
function branches({ edgeVertices }: Connectivity, { via }: Path, start: number): Int32Array {
  const branch = new Int32Array(via.length).fill(-1);
  branch[start] = start;
  const way: number[] = [];
  for (let v = 0; v < via.length; v++) {
    let at = v;
    while (branch[at] < 0 && via[at] >= 0) {
      way.push(at);
      at = edgeVertices[2 * via[at]] + edgeVertices[2 * via[at] + 1] - at;
    }
    for (let next = way.pop(); next !== undefined; next = way.pop()) {
      branch[next] = at === start ? next : branch[at];
      at = next;
    }
  }
  return branch;
}

/** Faces and borders, each a node, joined by the edges that are not in the tree of ways; the longest loop first. */
interface Dual {
  readonly faces: number;
  readonly nodes: number;
  /** Edge of the mesh of each dual edge, and the two nodes beside it. */
  readonly edge: number[];
  readonly ends: readonly (readonly [number, number])[];
}

function dualEdges(
  mesh: Mesh,
  links: Connectivity,
  { via, cost }: Path,
  lengthOf: (e: number) => number,
): Dual {
  const { edgeVertices, edgeCorners, edgeCornerStart, cornerFace, joined } = links;
  const faces = faceCount(mesh);
  const rims = disjointSets(cost.length);
  for (let e = 0; e < joined.length; e++)
    if (!joined[e]) unite(rims, edgeVertices[2 * e], edgeVertices[2 * e + 1]);
  const border = numberSets(rims);
  const inTree = new Uint8Array(joined.length);
  for (const e of via) if (e >= 0) inTree[e] = 1;
  const list: number[] = [];
  for (let e = 0; e < joined.length; e++)
    if (!inTree[e] && cost[edgeVertices[2 * e]] < Infinity) list.push(e);
  const length = Float64Array.from(list, lengthOf);
  const order = Uint32Array.from(list.keys()).sort((i, j) => length[j] - length[i]);
  const edge: number[] = [];
  const ends: (readonly [number, number])[] = [];
  for (const i of order) {
    const e = list[i];
    const sides = Array.from(
      edgeCorners.subarray(edgeCornerStart[e], edgeCornerStart[e + 1]),
      (c) => cornerFace[c],
    );
    const rim = faces + border.label[edgeVertices[2 * e]];
    for (const pair of joined[e] ? [[sides[0], sides[1]] as const] : sides.map((f) => [f, rim] as const)) {
      edge.push(e);
      ends.push(pair);
    }
  }
  return { faces, nodes: faces + border.count, edge, ends };
}

/** A spanning forest that takes the edges in order (Kruskal 1956), and what is left over. */
function spanningTree({ nodes, ends }: Dual): { tree: number[]; rest: number[] } {
  const sets = disjointSets(nodes);
  const tree: number[] = [];
  const rest: number[] = [];
  ends.forEach(([a, b], d) => {
    if (findRoot(sets, a) === findRoot(sets, b)) rest.push(d);
    else {
      unite(sets, a, b);
      tree.push(d);
    }
  });
  return { tree, rest };
}

/** What lies on either side of the loop of an edge of the dual tree. */
function sidesOf(mesh: Mesh, { faces, nodes, ends }: Dual, tree: readonly number[], rest: readonly number[]) {
  const around: number[][] = Array.from({ length: nodes }, () => []);
  for (const d of tree) for (const node of ends[d]) around[node].push(d);
  const up = new Int32Array(nodes).fill(-1);
  const depth = new Int32Array(nodes).fill(-1);
  const order: number[] = [];
  const root = new Int32Array(nodes);
  for (let start = 0; start < nodes; start++) {
    if (depth[start] >= 0 || around[start].length === 0) continue;
    depth[start] = 0;
    const first = order.length;
    order.push(start);
    for (let k = first; k < order.length; k++) {
      const node = order[k];
      root[node] = start;
      for (const d of around[node]) {
        if (d === up[node]) continue;
        const next = ends[d][0] + ends[d][1] - node;
        depth[next] = depth[node] + 1;
        up[next] = d;
        order.push(next);
      }
    }
  }
  const over = (node: number): number => ends[up[node]][0] + ends[up[node]][1] - node;
  const area = new Float64Array(nodes);
  const rims = new Uint32Array(nodes);
  for (let f = 0; f < faces; f++) area[f] = Math.hypot(...faceNormal(mesh, f)) / 2;
  for (let node = faces; node < nodes; node++) rims[node] = 1;
  for (let k = order.length - 1; k >= 0; k--) {
    const node = order[k];
    if (up[node] < 0) continue;
    area[over(node)] += area[node];
    rims[over(node)] += rims[node];
  }
  // A loop that another edge leads round does not separate.
  const isHandle = new Uint8Array(ends.length);
  for (const d of rest) {
    let [a, b] = ends[d];
    while (a !== b) {
      if (depth[a] < depth[b]) [a, b] = [b, a];
      isHandle[up[a]] = 1;
      a = over(a);
    }
  }
  const lower = (d: number): number => (up[ends[d][0]] === d ? ends[d][0] : ends[d][1]);
  return {
    isEssential(d: number): boolean {
      const node = lower(d);
      return isHandle[d] === 1 || (rims[node] > 0 && rims[root[node]] > rims[node]);
    },
    smaller(d: number): number {
      const node = lower(d);
      return Math.min(area[node], area[root[node]] - area[node]);
    },
  };
}
