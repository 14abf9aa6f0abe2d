import { withSplitVertices } from '../mesh/edit.ts';
import { type Check, findingOf } from './check.ts';
import { cornerFans } from './cornerFans.ts';

/** Edges where more than two faces meet, or a face meets itself. */
export const nonManifoldEdges: Check = {
  kind: 'non-manifold-edges',
  when: 'edges are counted that more than two faces share',
  severity: 'spoils',
  thing: ['edge with more than two faces', 'edges with more than two faces'],
  effect: 'Shells are cut apart there, because no flat piece can go on in three directions.',
  find({ connectivity }) {
    const edges: number[] = [];
    for (let e = 0; e < connectivity.isInterior.length; e++) {
      if (connectivity.edgeCornerStart[e + 1] - connectivity.edgeCornerStart[e] > 2) edges.push(e);
    }
    return findingOf({ edges });
  },
  repair: {
    label: 'Part the sheets',
    safe: false,
    run: (patient, { edges }) => {
      const at = new Set(
        [...edges].flatMap((e) => [...patient.connectivity.edgeVertices.subarray(2 * e, 2 * e + 2)]),
      );
      return withSplitVertices(patient.mesh, cornerFans(patient, at));
    },
  },
};
