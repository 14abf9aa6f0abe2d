import { withFlipped } from '../mesh/edit.ts';
import { type Check, findingOf, type Patient } from './check.ts';
import { piecesOf } from './pieces.ts';

/** Closed pieces whose faces look inward, by the sign of their volume. */
export const insideOut: Check = {
  kind: 'inside-out',
  when: 'closed pieces of negative volume',
  severity: 'spoils',
  thing: ['face of a piece that is inside out', 'faces of pieces that are inside out'],
  effect: 'Its UVs come out mirrored, and its texture is seen from behind.',
  find: (patient) => findingOf({ faces: inwardPieces(patient).flat() }),
  repair: {
    label: 'Turn the pieces inside in',
    safe: true,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withFlipped(mesh, faces),
  },
};

/** Faces of each closed piece of negative volume (divergence theorem, about a point of the piece). */
const inwardPieces = (patient: Patient): (readonly number[])[] =>
  piecesOf(patient)
    .filter(({ faces, closed }) => closed && volume(patient.mesh, faces) < 0)
    .map(({ faces }) => faces);

/** Six times the volume inside some faces of a mesh. */
function volume(
  { positions: p, faceStart, cornerVertex }: Patient['mesh'],
  faces: readonly number[],
): number {
  const origin = 3 * cornerVertex[faceStart[faces[0]]];
  const at = (c: number, k: number) => p[3 * cornerVertex[c] + k] - p[origin + k];
  let sum = 0;
  for (const f of faces) {
    const a = faceStart[f];
    for (let c = a + 1; c + 1 < faceStart[f + 1]; c++) {
      const b = c + 1;
      sum +=
        at(a, 0) * (at(c, 1) * at(b, 2) - at(c, 2) * at(b, 1)) +
        at(a, 1) * (at(c, 2) * at(b, 0) - at(c, 0) * at(b, 2)) +
        at(a, 2) * (at(c, 0) * at(b, 1) - at(c, 1) * at(b, 0));
    }
  }
  return sum;
}
