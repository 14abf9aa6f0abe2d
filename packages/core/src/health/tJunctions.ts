import { borderEdges, edgeLength, meanLength } from './borderEdges.ts';
import { type Check, found, type Patient } from './check.ts';
import { pointGrid } from './pointGrid.ts';

/** Border points that lie in the middle of another border edge: one side has an edge where the other has two. No repair yet. */
export const tJunctions: Check = {
  kind: 't-junctions',
  severity: 'hint',
  thing: ['point in the middle of an edge', 'points in the middle of edges'],
  effect: 'The two sides are not joined there, so shells end as at a seam.',
  find(patient, { tolerance }) {
    const { vertices, edges } = junctions(patient, tolerance);
    return found({ vertices, edges }, vertices.size);
  },
};

function junctions(patient: Patient, tolerance: number): { vertices: Set<number>; edges: Set<number> } {
  const { mesh, links } = patient;
  const p = mesh.positions;
  const borders = borderEdges(patient);
  const mean = meanLength(patient, borders);
  const reach = tolerance * mean;
  const result = { vertices: new Set<number>(), edges: new Set<number>() };
  if (!(reach > 0)) return result;
  const ends = new Set(borders.flatMap((e) => [...links.edgeVertices.subarray(2 * e, 2 * e + 2)]));
  const grid = pointGrid(p, ends, mean);
  for (const e of borders) {
    const [a, b] = links.edgeVertices.subarray(2 * e, 2 * e + 2);
    const length = edgeLength(p, links.edgeVertices, e);
    const direction = [0, 1, 2].map((k) => (p[3 * b + k] - p[3 * a + k]) / (length || 1));
    const near = (v: number) => {
      if (v === a || v === b) return;
      const from = [0, 1, 2].map((k) => p[3 * v + k] - p[3 * a + k]);
      const along = from[0] * direction[0] + from[1] * direction[1] + from[2] * direction[2];
      if (along <= reach || along >= length - reach) return;
      const off = Math.hypot(...from.map((x, k) => x - along * direction[k]));
      if (off > reach) return;
      result.vertices.add(v);
      result.edges.add(e);
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
