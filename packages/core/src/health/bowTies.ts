import { withSplitVertices } from '../mesh/edit.ts';
import { type Check, findingOf, type Patient } from './check.ts';
import { cornerFans } from './cornerFans.ts';

/** Points where faces touch that share no edge: like the knot of a bow tie. Points of edges with many faces do not count. */
export const bowTies: Check = {
  kind: 'bow-ties',
  when: 'faces touch in a point without sharing an edge there',
  severity: 'hint',
  thing: ['point where faces only touch', 'points where faces only touch'],
  effect: 'The faces on either side come apart in the flat; they were never joined.',
  find: (patient) => findingOf({ vertices: knots(patient) }),
  repair: {
    label: 'Give each side its own point',
    safe: true,
    run: (patient, { vertices }) => withSplitVertices(patient.mesh, cornerFans(patient, new Set(vertices))),
  },
};

function knots(patient: Patient): number[] {
  const { mesh, connectivity } = patient;
  const fans = cornerFans(patient);
  const manifold = new Uint8Array(mesh.positions.length / 3).fill(1);
  for (let e = 0; e < connectivity.isInterior.length; e++) {
    if (connectivity.edgeCornerStart[e + 1] - connectivity.edgeCornerStart[e] > 2 || opposed(patient, e)) {
      for (const v of connectivity.edgeVertices.subarray(2 * e, 2 * e + 2)) manifold[v] = 0;
    }
  }
  const first = new Int32Array(manifold.length).fill(-1);
  const found = new Set<number>();
  fans.forEach((fan, c) => {
    const v = mesh.cornerVertex[c];
    if (first[v] < 0) first[v] = fan;
    else if (first[v] !== fan && manifold[v]) found.add(v);
  });
  return [...found].sort((a, b) => a - b);
}

/** Two faces of opposed winding: a fault of its own. */
const opposed = ({ connectivity }: Patient, e: number): boolean =>
  !connectivity.isInterior[e] && connectivity.edgeCornerStart[e + 1] - connectivity.edgeCornerStart[e] === 2;
