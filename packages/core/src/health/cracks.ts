import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import { withJoined } from '../mesh/edit.ts';
import { pointGrid } from '../mesh/pointGrid.ts';
import { borderEdges, meanLength } from './borderEdges.ts';
import { type Check, type CheckOptions, findingOf, type Patient } from './check.ts';

/**
 * Borders that lie on each other and are not joined, as mirroring leaves them: pairs of border edges whose ends are
 * within the tolerance of each other. Points that merely touch are left alone.
 */
export const cracks: Check = {
  kind: 'cracks',
  when: 'two border edges whose ends are within the tolerance of each other; points that merely touch are left',
  severity: 'spoils',
  thing: ['open crack point', 'open crack points'],
  effect: 'Shells end at the crack as at a seam, and paint will show a line there.',
  find(patient, options) {
    const standIn = standIns(patient, options);
    const vertices = Array.from(standIn.keys()).filter((v) => standIn[v] !== v);
    const both = new Set(vertices.flatMap((v) => [v, standIn[v]]));
    const { edgeVertices } = patient.connectivity;
    const edges = borderEdges(patient).filter(
      (e) => both.has(edgeVertices[2 * e]) && both.has(edgeVertices[2 * e + 1]),
    );
    return findingOf({ edges, vertices: both }, vertices.length);
  },
  repair: {
    label: 'Join them',
    safe: true,
    run: (patient, _, options) => withJoined(patient.mesh, standIns(patient, options)),
  },
};

/** For each vertex the one it is to be joined to, itself for most. */
function standIns(patient: Patient, { tolerance }: CheckOptions): Uint32Array {
  const { mesh, connectivity } = patient;
  const { positions } = mesh;
  const borders = borderEdges(patient);
  const ends = new Set(
    borders.flatMap((e) => [connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]]),
  );
  const reach = tolerance * meanLength(patient, borders);
  const near = disjointSets(positions.length / 3);
  if (reach > 0) {
    const grid = pointGrid(positions, ends, reach);
    const neighbours = vertexNeighbours(patient, borders);
    for (const v of ends) {
      const [x, y, z] = positions.subarray(3 * v, 3 * v + 3);
      grid.near(x, y, z, (w) => {
        const distance = Math.hypot(positions[3 * w] - x, positions[3 * w + 1] - y, positions[3 * w + 2] - z);
        // The two ends of one edge are no crack, however short it is.
        if (w > v && distance <= reach && !neighbours.get(v)?.has(w)) unite(near, v, w);
      });
    }
  }
  // Where exactly two border edges come to lie on each other, their ends are joined.
  const pairs = new Map<string, number[]>();
  for (const e of borders) {
    const [a, b] = [
      findRoot(near, connectivity.edgeVertices[2 * e]),
      findRoot(near, connectivity.edgeVertices[2 * e + 1]),
    ];
    if (a === b) continue;
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    pairs.set(key, [...(pairs.get(key) ?? []), e]);
  }
  const isInterior = disjointSets(positions.length / 3);
  for (const [e, f, ...more] of pairs.values()) {
    if (f === undefined || more.length > 0) continue;
    for (const v of connectivity.edgeVertices.subarray(2 * e, 2 * e + 2)) {
      for (const w of connectivity.edgeVertices.subarray(2 * f, 2 * f + 2)) {
        if (findRoot(near, v) === findRoot(near, w)) unite(isInterior, v, w);
      }
    }
  }
  return Uint32Array.from(isInterior.parent, (_, v) => findRoot(isInterior, v));
}

function vertexNeighbours({ connectivity }: Patient, edges: readonly number[]): Map<number, Set<number>> {
  const neighbours = new Map<number, Set<number>>();
  const add = (a: number, b: number) => neighbours.set(a, (neighbours.get(a) ?? new Set()).add(b));
  for (const e of edges) {
    const [a, b] = connectivity.edgeVertices.subarray(2 * e, 2 * e + 2);
    add(a, b);
    add(b, a);
  }
  return neighbours;
}
