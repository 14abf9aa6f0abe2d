import { withoutFaces } from '../mesh/edit.ts';
import { type Check, findingOf, type Patient } from './check.ts';

/** Part of the model's size at which two places count as one. */
const SAME = 1e-6;

/** Faces that lie exactly on another face, on points of their own: the model was pasted over itself. */
export const coincidentFaces: Check = {
  kind: 'coincident-faces',
  when: 'all corners at the same places as another face, on points of their own',
  severity: 'spoils',
  thing: ['face that lies on another', 'faces that lie on others'],
  effect: 'Both get texture and only one is seen, which of them changes from one moment to the next.',
  find: (patient) => findingOf({ faces: covered(patient) }),
  repair: {
    label: 'Delete one of each two',
    safe: false,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withoutFaces(mesh, faces),
  },
};

/** All but the first face at each place, doubles on the very same points left to their own check. */
function covered({ mesh }: Patient): number[] {
  const { positions } = mesh;
  let size = 0;
  for (let i = 3; i < positions.length; i++) size = Math.max(size, Math.abs(positions[i] - positions[i % 3]));
  const step = SAME * size || 1;
  // Rounded places are made once a vertex; equal places have equal names.
  const place = Array.from({ length: positions.length / 3 }, (_, v) =>
    [0, 1, 2].map((k) => Math.round((positions[3 * v + k] - positions[k]) / step)).join(','),
  );
  const seen = new Map<string, number>();
  const found: number[] = [];
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    const vertices = mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]);
    const key = Array.from(vertices, (v) => place[v])
      .sort()
      .join(' ');
    const first = seen.get(key);
    if (first === undefined) seen.set(key, f);
    else if (
      !sameVertices(vertices, mesh.cornerVertex.subarray(mesh.faceStart[first], mesh.faceStart[first + 1]))
    )
      found.push(f);
  }
  return found;
}

function sameVertices(a: Uint32Array, b: Uint32Array): boolean {
  const set = new Set(b);
  return a.length === b.length && a.every((v) => set.has(v));
}
