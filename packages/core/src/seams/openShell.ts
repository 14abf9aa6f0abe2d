import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { growingPath } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';
import { borders } from '../surface/borders.ts';
import { cuttable } from '../surface/cutShell.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import type { Shell } from '../surface/shell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { cutGraph, systemOfLoops } from './cutGraph.ts';
import { smallHandles } from './smallHandles.ts';

/** Tips of a closed piece that its opening joins, at most. */
const MOST_TIPS = 6;
/** A tip counts while it is at least this part as far from the others as the second was from the first. */
const FAR = 0.35;
/** Roots from which loops round handles are sought. */
const MOST_ROOTS = 4;

export interface Opening {
  /** Two shell vertices an edge. */
  readonly edges: readonly (readonly [number, number])[];
  /** Handles too small to matter, each opened by a ring round it. */
  readonly smallHandles: number;
}

/**
 * The cut that opens a piece where it hides: a ball by a tree that joins its tips, the vertices farthest from one another (farthest
 * points: Eldar, Lindenbaum, Porat, Zeevi 1997; ways over what is seen least: Sheffer, Hart 2002), a tube by the lengthwise way from one border
 * to the other, handles by the shortest system of loops (`cutGraph`), small ones by a ring each (`smallHandles`).
 *
 * @param costOf  what a seam along an edge between two shell vertices costs, more than 0
 * @param disc  whether all borders are to be joined as well
 * @returns no edges where the piece can lie flat as it is
 */
export function openShell(
  shell: Shell,
  costOf: (a: number, b: number) => number,
  { disc = false } = {},
): Opening {
  const rings = disc ? [] : smallHandles(shell);
  const edges: (readonly [number, number])[] = rings.flatMap((ring) => ring.edges);
  const knife = cuttable(shell);
  const opened =
    rings.length > 0 ? knife.cut(edges.map(([a, b]) => edgeBetween(knife.connectivity, a, b))) : shell;
  if (!opened) return { edges, smallHandles: rings.length };
  /** The vertex of the whole shell that one of what is opened already is. */
  const whole = (v: number): number =>
    opened === shell ? v : knife.mesh.cornerVertex[opened.vertexCorner[v]];
  const own = opened === shell ? knife : cuttable(opened);
  const { mesh, connectivity } = own;
  const { edgeVertices, isInterior } = connectivity;
  const costs = Float64Array.from(isInterior.keys(), (e) =>
    isInterior[e] ? costOf(whole(edgeVertices[2 * e]), whole(edgeVertices[2 * e + 1])) : Infinity,
  );
  for (const e of rest()) edges.push([whole(edgeVertices[2 * e]), whole(edgeVertices[2 * e + 1])]);
  return { edges, smallHandles: rings.length };

  function rest(): readonly number[] {
    if (!opened) return [];
    const { kind, genus } = shellTopology(opened);
    const { loops } = borders(opened.triangles, opened.positions.length / 3);
    const cost = (e: number) => costs[e];
    if (kind === 'nonManifold' || kind === 'disk') return [];
    if (genus > 0) return roundHandles(own, cost, loops, disc);
    if (kind === 'annulus') return lengthwise(mesh, connectivity, cost, loops);
    if (kind === 'closed' || (kind === 'pinholes' && (!disc || loops.length === 1)))
      return treeOfTips(opened, mesh, connectivity, cost);
    return disc ? roundHandles(own, cost, loops, true) : [];
  }
}

function edgeBetween(
  { vertexEdges, vertexEdgeStart, edgeVertices }: Connectivity,
  a: number,
  b: number,
): number {
  for (let i = vertexEdgeStart[a]; i < vertexEdgeStart[a + 1]; i++) {
    const e = vertexEdges[i];
    if (edgeVertices[2 * e] + edgeVertices[2 * e + 1] - a === b) return e;
  }
  throw new Error('Two points of a ring are not joined.');
}

type Cost = (edge: number) => number;

type Knife = ReturnType<typeof cuttable>;

/** The cheapest system of loops from some roots, run straight. */
function roundHandles(
  { mesh, connectivity, cut }: Knife,
  cost: Cost,
  loops: readonly Uint32Array[],
  disc: boolean,
): readonly number[] {
  const total = (edges: readonly number[]) => edges.reduce((sum, e) => sum + cost(e), 0);
  const from = (root: number) => cutGraph(connectivity, systemOfLoops(mesh, connectivity, root, cost, disc));
  let best = from(loops[0]?.[0] ?? 0);
  // A root on the loops themselves does with less, where it is not the first that came; from a border there is no choice.
  const tried = new Set([0]);
  for (let k = 1; k < MOST_ROOTS && loops.length === 0; k++) {
    const root = connectivity.edgeVertices[2 * best[Math.floor((best.length * k) / MOST_ROOTS)]];
    if (tried.has(root)) continue;
    tried.add(root);
    const other = from(root);
    if (total(other) < total(best)) best = other;
  }
  const straight = straightRuns(mesh, connectivity, cost, best);
  // Round something thin a straighter way may have gone to its other side.
  const opened = cut(straight);
  const isSame =
    opened && shellTopology(opened).genus === 0 && (!disc || shellTopology(opened).kind === 'disk');
  return isSame ? straight : best;
}

/** Runs between forks, each run straight where nothing else is cut. */
function straightRuns(
  mesh: Mesh,
  connectivity: Connectivity,
  cost: Cost,
  edges: readonly number[],
): number[] {
  const taken = new Map<number, number>();
  const use = (vertices: readonly number[], by: number) => {
    for (const v of vertices) taken.set(v, (taken.get(v) ?? 0) + by);
  };
  const runs = runsOfEdges(connectivity, edges);
  for (const { vertices } of runs) use(vertices, 1);
  const isRim = (v: number): boolean => {
    for (let i = connectivity.vertexEdgeStart[v]; i < connectivity.vertexEdgeStart[v + 1]; i++)
      if (!connectivity.isInterior[connectivity.vertexEdges[i]]) return true;
    return false;
  };
  return runs.flatMap((run) => {
    if (run.closed) return [...run.edges];
    use(run.vertices, -1);
    const straight = straightenPath(mesh, connectivity, run.vertices[0], run.edges, cost, {
      isFree: (v) => !taken.get(v) && !isRim(v),
    });
    const vertices = [run.vertices[0]];
    for (const e of straight)
      vertices.push(
        connectivity.edgeVertices[2 * e] +
          connectivity.edgeVertices[2 * e + 1] -
          vertices[vertices.length - 1],
      );
    use(vertices, 1);
    return straight;
  });
}

function lengthwise(
  mesh: Mesh,
  connectivity: Connectivity,
  cost: Cost,
  loops: readonly Uint32Array[],
): readonly number[] {
  const paths = growingPath(connectivity, loops[0], cost);
  paths.grow();
  let end = -1;
  for (const v of loops[1])
    if (paths.cost[v] < Infinity && (end < 0 || paths.cost[v] < paths.cost[end])) end = v;
  if (end < 0) return [];
  const edges = paths.edgesTo(end);
  const onBorder = new Set([...loops[0], ...loops[1]]);
  return straightenPath(mesh, connectivity, startOf(connectivity, edges, end), edges, cost, {
    isFree: (v) => !onBorder.has(v),
  });
}

function treeOfTips(shell: Shell, mesh: Mesh, connectivity: Connectivity, cost: Cost): readonly number[] {
  const { edgeVertices } = connectivity;
  const any = shell.triangles[0];
  const farthest = (from: Iterable<number>): readonly [number, number] => {
    const distance = distanceFrom(shell.positions, shell.triangles, from);
    let best = any;
    for (let v = 0; v < distance.length; v++)
      if (distance[v] < Infinity && distance[v] > distance[best]) best = v;
    return [best, distance[best]];
  };
  const [first] = farthest([any]);
  const onTree = new Set([first]);
  const edges: number[] = [];
  let reach = 0;
  for (let k = 1; k < MOST_TIPS; k++) {
    const [tip, far] = farthest(onTree);
    if (k === 1) reach = far;
    else if (far < FAR * reach) break;
    const paths = growingPath(connectivity, onTree, cost);
    paths.grow(tip);
    const way = paths.edgesTo(tip);
    const start = startOf(connectivity, way, tip);
    const run = straightenPath(mesh, connectivity, start, way, cost, {
      isFree: (v) => v === tip || !onTree.has(v),
    });
    let v = start;
    for (const e of run) {
      edges.push(e);
      v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
      onTree.add(v);
    }
  }
  return edges.length > 1 ? edges : twoEdges(connectivity, edges);
}

/** One edge alone opens nothing: it goes on to a third vertex. */
function twoEdges(
  { edgeVertices, vertexEdges, vertexEdgeStart, isInterior }: Connectivity,
  edges: readonly number[],
): readonly number[] {
  const [first = isInterior.indexOf(1)] = edges;
  if (first < 0) return edges;
  const [a, b] = [edgeVertices[2 * first], edgeVertices[2 * first + 1]];
  for (let i = vertexEdgeStart[b]; i < vertexEdgeStart[b + 1]; i++) {
    const e = vertexEdges[i];
    if (isInterior[e] && edgeVertices[2 * e] !== a && edgeVertices[2 * e + 1] !== a) return [first, e];
  }
  return [first];
}

/** The vertex at which a way to `end` begins. */
function startOf({ edgeVertices }: Connectivity, edges: readonly number[], end: number): number {
  let v = end;
  for (const e of [...edges].reverse()) v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
  return v;
}
