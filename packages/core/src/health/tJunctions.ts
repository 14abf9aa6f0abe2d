import { withInserted } from '../mesh/edit.ts';
import { pointGrid } from '../mesh/pointGrid.ts';
import { borderEdges, edgeLength, meanLength } from './borderEdges.ts';
import { type Check, findingOf, type Patient } from './check.ts';

/** Border points that lie in the middle of another border edge: one side has an edge where the other has two. */
export const tJunctions: Check = {
  kind: 't-junctions',
  when: 'a border point within the tolerance of another border edge',
  severity: 'hint',
  thing: ['point in the middle of an edge', 'points in the middle of edges'],
  effect: 'The two sides are not joined there, so shells end as at a seam.',
  find(patient, { tolerance }) {
    const all = junctions(patient, tolerance);
    const vertices = new Set(all.map(({ vertex }) => vertex));
    return findingOf({ vertices, edges: new Set(all.map(({ edge }) => edge)) }, vertices.size);
  },
  repair: {
    label: 'Make them corners of both sides',
    safe: false,
    run(patient, _, { tolerance }) {
      const { edgeCorners, edgeCornerStart, edgeVertices } = patient.connectivity;
      const inserted = new Map<number, { vertex: number; along: number }[]>();
      for (const { vertex, edge, along } of junctions(patient, tolerance)) {
        const corner = edgeCorners[edgeCornerStart[edge]];
        // The face may run along the edge the other way.
        const ahead = patient.mesh.cornerVertex[corner] === edgeVertices[2 * edge];
        const list = inserted.get(corner) ?? [];
        list.push({ vertex, along: ahead ? along : 1 - along });
        inserted.set(corner, list);
      }
      for (const list of inserted.values()) list.sort((a, b) => a.along - b.along);
      return withInserted(patient.mesh, inserted);
    },
  },
};

interface Junction {
  readonly vertex: number;
  readonly edge: number;
  /** Part of the way from the edge's first end to its second. */
  readonly along: number;
}

function junctions(patient: Patient, tolerance: number): Junction[] {
  const { mesh, connectivity } = patient;
  const p = mesh.positions;
  const borders = borderEdges(patient);
  const mean = meanLength(patient, borders);
  const reach = tolerance * mean;
  const result: Junction[] = [];
  if (!(reach > 0)) return result;
  const ends = new Set(borders.flatMap((e) => [...connectivity.edgeVertices.subarray(2 * e, 2 * e + 2)]));
  const grid = pointGrid(p, ends, mean);
  for (const e of borders) {
    const [a, b] = connectivity.edgeVertices.subarray(2 * e, 2 * e + 2);
    const length = edgeLength(p, connectivity.edgeVertices, e);
    const direction = [0, 1, 2].map((k) => (p[3 * b + k] - p[3 * a + k]) / (length || 1));
    const seen = new Set([a, b]);
    const near = (v: number) => {
      if (seen.has(v)) return;
      seen.add(v);
      const from = [0, 1, 2].map((k) => p[3 * v + k] - p[3 * a + k]);
      const along = from[0] * direction[0] + from[1] * direction[1] + from[2] * direction[2];
      if (along <= reach || along >= length - reach) return;
      const off = Math.hypot(...from.map((x, k) => x - along * direction[k]));
      if (off > reach) return;
      result.push({ vertex: v, edge: e, along: along / length });
    };
    // From one end to the other in steps no longer than a cell.
    const steps = Math.ceil(length / mean);
    for (let s = 0; s <= steps; s++) {
      const t = (s / steps) * length;
      grid.near(
        p[3 * a] + t * direction[0],
        p[3 * a + 1] + t * direction[1],
        p[3 * a + 2] + t * direction[2],
        near,
      );
    }
  }
  return result;
}
