import FlatQueue from 'flatqueue';
import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { surfaceArea } from '../surface/areas.ts';
import { cuttable } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { systemOfLoops } from './cutGraph.ts';
import { loopClasses } from './loopClasses.ts';

/** A handle is small when a ring round it, or through it, is shorter than this part of the square root of the surface. */
const SMALL = 0.08;
/** Rings that cross one another are found one after the other, in so many rounds at most. */
const MOST_ROUNDS = 12;

/** A ring that opens one handle. */
export interface SmallHandle {
  /** Two shell vertices an edge. */
  readonly edges: readonly (readonly [number, number])[];
  readonly length: number;
}

/**
 * Handles and tunnels too small to be meant, as scans have them by the hundred: a short ring each, cut along which they are none any more. Every loop
 * round something crosses an edge that has a class (`loopClasses`); the shortest through each of these is sought close by, and the shortest
 * of them taken that go round different things and touch no other: cut together they leave the piece whole.
 */
export function smallHandles(shell: Shell): SmallHandle[] {
  const found: SmallHandle[] = [];
  const most = SMALL * Math.sqrt(surfaceArea(shell.positions, shell.triangles));
  let now = shell;
  let whole = (v: number): number => v;
  for (let round = 0; round < MOST_ROUNDS && shellTopology(now).genus > 0; round++) {
    const knife = cuttable(now);
    const { mesh, connectivity } = knife;
    let rings = apartFromOneAnother(shortLoops(mesh, connectivity, most));
    let cut: Shell | undefined;
    // Three that bound a piece between them would part it off: then fewer at a time.
    while (!cut && rings.length > 0) {
      cut = knife.cut(rings.flatMap(({ edges }) => edges));
      if (!cut) rings = rings.slice(0, rings.length >> 1);
    }
    if (!cut) break;
    const before = whole;
    for (const { edges, length } of rings) {
      const ends = (e: number, k: number) => before(connectivity.edgeVertices[2 * e + k]);
      found.push({ edges: edges.map((e) => [ends(e, 0), ends(e, 1)] as const), length });
    }
    const { vertexCorner } = cut;
    whole = (v) => before(mesh.cornerVertex[vertexCorner[v]]);
    now = cut;
  }
  return found;
}

interface Loop {
  /** Joined edges of it. */
  readonly edges: readonly number[];
  readonly vertices: readonly number[];
  readonly length: number;
  readonly class: number;
}

/** Loops that share no vertex and go round different things, the shortest first. */
function apartFromOneAnother(loops: readonly Loop[]): Loop[] {
  const touched = new Set<number>();
  const classes = new Set<number>();
  return [...loops]
    .sort((a, b) => a.length - b.length || a.edges[0] - b.edges[0])
    .filter(({ vertices, class: own }) => {
      if (classes.has(own) || vertices.some((v) => touched.has(v))) return false;
      classes.add(own);
      for (const v of vertices) touched.add(v);
      return true;
    });
}

/** The shortest loop that goes round something through every edge that has a class, if it is short. */
function shortLoops(mesh: Mesh, connectivity: Connectivity, most: number): Loop[] {
  const { isInterior, edgeVertices } = connectivity;
  // Along borders a way is free: what goes round something by way of a hole is cut from hole to hole.
  const lengths = Float64Array.from(isInterior.keys(), (e) =>
    isInterior[e] ? edgeLength(mesh, connectivity, e) : 0,
  );
  const rim = isInterior.indexOf(0);
  const system = systemOfLoops(mesh, connectivity, rim < 0 ? 0 : edgeVertices[2 * rim], (e) => lengths[e]);
  const classOf = loopClasses(system, isInterior.length);
  const seeds = new Set<number>();
  for (let e = 0; e < classOf.length; e++) if (classOf[e] !== 0) seeds.add(edgeVertices[2 * e]);
  const loops: Loop[] = [];
  for (const seed of seeds) {
    const loop = shortestLoop(connectivity, lengths, classOf, seed, most);
    if (loop) loops.push(loop);
  }
  return loops;
}

/** The shortest loop through a vertex whose edges' classes do not cancel, among those no longer than a bound. */
function shortestLoop(
  { edgeVertices, vertexEdges, vertexEdgeStart, isInterior }: Connectivity,
  lengths: Float64Array,
  classOf: Int32Array,
  seed: number,
  bound: number,
): Loop | undefined {
  const reached = new Map<number, { cost: number; via: number; class: number; settled: boolean }>([
    [seed, { cost: 0, via: -1, class: 0, settled: false }],
  ]);
  const queue = new FlatQueue<number>();
  queue.push(seed, 0);
  let [best, length, round] = [-1, bound, 0];
  for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
    const here = reached.get(v);
    if (!here || here.settled) continue;
    here.settled = true;
    if (2 * here.cost > length) break;
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) {
      const e = vertexEdges[i];
      if (e === here.via) continue;
      const w = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
      const there = reached.get(w);
      const cost = here.cost + lengths[e];
      const own = here.class ^ classOf[e];
      if (there?.settled && (there.class ^ own) !== 0 && there.cost + cost <= length)
        [best, length, round] = [e, there.cost + cost, there.class ^ own];
      if (there && cost >= there.cost) continue;
      reached.set(w, { cost, via: e, class: own, settled: false });
      queue.push(w, cost);
    }
  }
  if (best < 0) return undefined;
  const vertices: number[] = [];
  const back = (start: number): number[] => {
    const edges: number[] = [];
    for (let v = start; ; ) {
      vertices.push(v);
      const via = reached.get(v)?.via ?? -1;
      if (via < 0) return edges;
      edges.push(via);
      v = edgeVertices[2 * via] + edgeVertices[2 * via + 1] - v;
    }
  };
  const [one, other] = [back(edgeVertices[2 * best]), back(edgeVertices[2 * best + 1])];
  // Both ways may begin alike: what they have in common belongs to neither.
  const shared = new Set(one.filter((e) => other.includes(e)));
  const edges = [best, ...one, ...other].filter((e) => isInterior[e] && !shared.has(e));
  return { edges, vertices, length, class: round };
}
