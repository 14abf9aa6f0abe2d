import { bucket, type Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { edgeLength, type Path, shortestPath } from './shortestPath.ts';
import { straightRing } from './straightRing.ts';

/**
 * A ring goes round something when its length squared is below this part of 4 π times the area on either side: a flat disc has 1, a ball cut in
 * half has ½, and the end of a finger has less the longer it is.
 */
const TIGHT = 0.4;

/**
 * The tightest closed ring of edges through a vertex that goes round something: an arm, a finger, a neck, a sleeve, a handle. Of the loops
 * that one edge closes over the tree of shortest ways from the vertex, it is the shortest that does not separate the surface, or parts one
 * border from another, or parts off far more surface on either side than a flat disc with its border has. What lies on the sides is read
 * off a dual tree, each edge of which crosses one loop; edges in neither tree tell which loops go round handles (tree and cotree: Eppstein
 * 2003; Erickson and Whittlesey 2005).
 *
 * It is run straight, so that it does not go in stairs over triangles.
 *
 * @returns edges in order, from the vertex round to it; none where there is nothing to go round
 */
export function ringAround(mesh: Mesh, connectivity: Connectivity, vertex: number): number[] {
  const { edgeVertices } = connectivity;
  const paths = shortestPath(connectivity, vertex, undefined, (e) => edgeLength(mesh, connectivity, e));
  const branch = branches(connectivity, paths, vertex);
  const dual = dualGraph(mesh, connectivity, paths);
  const sides = sidesOf(mesh, dual);
  let best = -1;
  let least = Infinity;
  for (let d = 0; d < dual.edge.length; d++) {
    const e = dual.edge[d];
    const a = edgeVertices[2 * e];
    const b = edgeVertices[2 * e + 1];
    if (branch[a] === branch[b]) continue;
    const length = paths.cost[a] + paths.cost[b] + edgeLength(mesh, connectivity, e);
    if (length >= least) continue;
    if (sides.isEssential(d) || length ** 2 < TIGHT * 4 * Math.PI * sides.smaller(d))
      [best, least] = [e, length];
  }
  if (best < 0) return [];
  const [a, b] = [edgeVertices[2 * best], edgeVertices[2 * best + 1]];
  const ring = [...paths.edgesTo(a), best, ...paths.edgesTo(b).reverse()];
  return straightRing(mesh, connectivity, vertex, ring, (e) => edgeLength(mesh, connectivity, e), {
    fixed: true,
  });
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

/** Faces and borders, each a node, joined by the edges that are not in the tree of ways. */
interface Dual {
  readonly faces: number;
  readonly nodes: number;
  /** Edge of the mesh that each dual edge crosses. */
  readonly edge: Uint32Array;
  /** The two nodes beside it: `2 × edge.length`. */
  readonly ends: Uint32Array;
}

function dualGraph(mesh: Mesh, connectivity: Connectivity, { via, cost }: Path): Dual {
  const { edgeVertices, edgeCorners, edgeCornerStart, cornerFace, isInterior } = connectivity;
  const faces = faceCount(mesh);
  const rims = disjointSets(cost.length);
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e]) unite(rims, edgeVertices[2 * e], edgeVertices[2 * e + 1]);
  const border = numberSets(rims);
  const inTree = new Uint8Array(isInterior.length);
  for (const e of via) if (e >= 0) inTree[e] = 1;
  const edge = new Uint32Array(cornerFace.length);
  const ends = new Uint32Array(2 * cornerFace.length);
  let count = 0;
  const add = (e: number, a: number, b: number): void => {
    edge[count] = e;
    ends[2 * count] = a;
    ends[2 * count + 1] = b;
    count++;
  };
  for (let e = 0; e < isInterior.length; e++) {
    if (inTree[e] || cost[edgeVertices[2 * e]] === Infinity) continue;
    const first = edgeCornerStart[e];
    const rim = faces + border.label[edgeVertices[2 * e]];
    if (isInterior[e]) add(e, cornerFace[edgeCorners[first]], cornerFace[edgeCorners[first + 1]]);
    else for (let i = first; i < edgeCornerStart[e + 1]; i++) add(e, cornerFace[edgeCorners[i]], rim);
  }
  return { faces, nodes: faces + border.count, edge: edge.slice(0, count), ends: ends.slice(0, 2 * count) };
}

/** What lies on either side of the loop that each dual edge crosses, by a spanning forest of the dual graph. */
function sidesOf(mesh: Mesh, { faces, nodes, edge, ends }: Dual) {
  const { start, items } = bucket(ends, nodes);
  const up = new Int32Array(nodes).fill(-1);
  const depth = new Int32Array(nodes).fill(-1);
  const root = new Uint32Array(nodes);
  const order = new Uint32Array(nodes);
  let reached = 0;
  for (let first = 0; first < nodes; first++) {
    if (depth[first] >= 0) continue;
    depth[first] = 0;
    let k = reached;
    order[reached++] = first;
    for (; k < reached; k++) {
      const node = order[k];
      root[node] = first;
      for (let i = start[node]; i < start[node + 1]; i++) {
        const next = ends[items[i] ^ 1];
        if (depth[next] >= 0) continue;
        depth[next] = depth[node] + 1;
        up[next] = items[i] >> 1;
        order[reached++] = next;
      }
    }
  }
  const over = (node: number): number => ends[2 * up[node]] + ends[2 * up[node] + 1] - node;
  const area = new Float64Array(nodes);
  const rims = new Uint32Array(nodes);
  for (let f = 0; f < faces; f++) area[f] = Math.hypot(...faceNormal(mesh, f)) / 2;
  rims.fill(1, faces);
  for (let k = reached - 1; k >= 0; k--) {
    const node = order[k];
    if (up[node] < 0) continue;
    area[over(node)] += area[node];
    rims[over(node)] += rims[node];
  }
  // A loop that another edge leads round does not separate.
  const isHandle = new Uint8Array(edge.length);
  for (let d = 0; d < edge.length; d++) {
    let a = ends[2 * d];
    let b = ends[2 * d + 1];
    if (up[a] === d || up[b] === d) continue;
    isHandle[d] = 1;
    while (a !== b) {
      if (depth[a] < depth[b]) [a, b] = [b, a];
      isHandle[up[a]] = 1;
      a = over(a);
    }
  }
  const lower = (d: number): number => (up[ends[2 * d]] === d ? ends[2 * d] : ends[2 * d + 1]);
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
