import type { Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import { faceCount, type Mesh, vertexCount } from '../mesh/mesh.ts';
import { growingPath, type Path } from '../select/shortestPath.ts';

/** Loops that generate all loops of a surface, each closed by one edge over a tree of least-cost ways. */
export interface SystemOfLoops {
  /** Edges that close them, two for every handle. */
  readonly closing: readonly number[];
  readonly paths: Path;
  /** Edges that the spanning tree over faces and caps crosses. */
  readonly crossed: readonly number[];
  /** What lies on the sides of an edge, by number: faces, and beyond them caps of borders. */
  sides(edge: number): readonly [number, number];
  /** One more than the greatest of these numbers. */
  readonly sideCount: number;
}

/**
 * The shortest system of loops from a root, by a tree and a cotree: edges outside the tree of least-cost ways, of which a spanning tree over the
 * faces takes as many as it can, those first whose loop costs most; those that are left close the loops (Eppstein 2003; Erickson and
 * Whittlesey 2005). Borders count as capped with a face each, so that they make no loops of their own; with `open` they count as one root
 * instead, and what is found are the ways between them, too.
 *
 * @param mesh  one connected piece
 * @param root  ignored with `open`, where there are borders
 * @param costOf  cost of a joined edge, more than 0; along borders a way is free
 */
export function systemOfLoops(
  mesh: Mesh,
  connectivity: Connectivity,
  root: number,
  costOf: (edge: number) => number,
  open = false,
): SystemOfLoops {
  const { isInterior, edgeVertices, edgeCorners, edgeCornerStart, cornerFace } = connectivity;
  const rim = new Set<number>();
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e]) for (const k of [0, 1]) rim.add(edgeVertices[2 * e + k]);
  const isOneRoot = open && rim.size > 0;
  const cost = (e: number) => (isInterior[e] ? costOf(e) : 0);
  const paths = growingPath(connectivity, isOneRoot ? rim : root, cost);
  paths.grow();
  const inTree = new Uint8Array(isInterior.length);
  for (const e of paths.via) if (e >= 0) inTree[e] = 1;

  // Faces, and beyond them a cap for every border, by one of its vertices.
  const faces = faceCount(mesh);
  const sideCount = faces + vertexCount(mesh);
  const caps = disjointSets(sideCount);
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e]) unite(caps, faces + edgeVertices[2 * e], faces + edgeVertices[2 * e + 1]);
  const sides = (e: number): readonly [number, number] => {
    const first = edgeCornerStart[e];
    const other = isInterior[e]
      ? cornerFace[edgeCorners[first + 1]]
      : findRoot(caps, faces + edgeVertices[2 * e]);
    return [cornerFace[edgeCorners[first]], other];
  };
  const rest: number[] = [];
  const along = new Float64Array(isInterior.length);
  for (let e = 0; e < isInterior.length; e++) {
    if (inTree[e] || (!isInterior[e] && isOneRoot)) continue;
    rest.push(e);
    along[e] = paths.cost[edgeVertices[2 * e]] + paths.cost[edgeVertices[2 * e + 1]] + cost(e);
  }
  rest.sort((a, b) => along[b] - along[a] || a - b);
  const spanned = disjointSets(sideCount);
  const closing: number[] = [];
  const crossed: number[] = [];
  for (const e of rest) {
    if (unite(spanned, ...sides(e))) crossed.push(e);
    else closing.push(e);
  }
  return { closing, paths, crossed, sides, sideCount };
}

/**
 * The edges of a system of loops, each once, without ways that lead nowhere: cut, they open every handle; with the system of an open piece, or of a
 * closed one, what is left is a disc.
 */
export function cutGraph(connectivity: Connectivity, { closing, paths }: SystemOfLoops): number[] {
  const { edgeVertices, isInterior } = connectivity;
  const edges = new Set<number>();
  for (const e of closing) {
    edges.add(e);
    for (const k of [0, 1]) for (const way of paths.edgesTo(edgeVertices[2 * e + k])) edges.add(way);
  }
  return withoutLooseEnds(
    connectivity,
    [...edges].filter((e) => isInterior[e]),
  );
}

/** Edges without the branches of them that end at no border and at no other. */
function withoutLooseEnds(
  { edgeVertices, vertexEdges, vertexEdgeStart, isInterior }: Connectivity,
  edges: readonly number[],
): number[] {
  const kept = new Set(edges);
  const degree = new Map<number, number>();
  const isRim = (v: number): boolean => {
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
      if (!isInterior[vertexEdges[i]]) return true;
    return false;
  };
  for (const e of kept)
    for (const v of [edgeVertices[2 * e], edgeVertices[2 * e + 1]]) degree.set(v, (degree.get(v) ?? 0) + 1);
  const loose = [...degree].filter(([v, count]) => count === 1 && !isRim(v)).map(([v]) => v);
  for (let v = loose.pop(); v !== undefined; v = loose.pop()) {
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) {
      const e = vertexEdges[i];
      if (!kept.delete(e)) continue;
      const other = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
      const count = (degree.get(other) as number) - 1;
      degree.set(other, count);
      if (count === 1 && !isRim(other)) loose.push(other);
    }
  }
  return [...kept];
}
