import { withFlipped } from '../mesh/edit.ts';
import { type Check, findingOf } from './check.ts';
import { piecesOf } from './pieces.ts';
import { BACK, FRONT, reachable } from './reachable.ts';

/** Of the faces seen from one side only, the part that must be seen from behind. */
const MOST = 0.8;
/** Faces looked at in each piece. */
const SAMPLE = 200;

/** Open pieces that show mostly their backs: a hood or a half turned inside out. */
export const facingInward: Check = {
  kind: 'facing-inward',
  when: 'open pieces that show mostly their backs to rays from outside',
  severity: 'spoils',
  thing: ['face of an open piece that shows its back', 'faces of open pieces that show their backs'],
  effect: 'Its UVs come out mirrored, and its texture is seen from behind.',
  find(patient, _, context) {
    const open = piecesOf(patient).flatMap(({ faces, closed }) => (closed ? [] : [faces]));
    if (open.length === 0) return undefined;
    const samples = open.map((faces) => evenly(faces, SAMPLE));
    const wanted = new Uint8Array(patient.mesh.faceStart.length - 1);
    for (const f of samples.flat()) wanted[f] = 1;
    const seen = reachable(patient, 'each', context, wanted);
    const inward = open.filter((_faces, piece) => {
      const of = (sides: number) => samples[piece].filter((f) => seen[f] === sides).length;
      const [backs, fronts] = [of(BACK), of(FRONT)];
      return backs > 0 && backs >= MOST * (backs + fronts);
    });
    return findingOf({ faces: inward.flat() });
  },
  repair: {
    label: 'Turn the pieces over',
    safe: false,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withFlipped(mesh, faces),
  },
};

/** At most so many of a list, from all along it. */
const evenly = (list: readonly number[], most: number): number[] => {
  const step = Math.max(1, list.length / most);
  return Array.from({ length: Math.min(list.length, most) }, (_, i) => list[Math.floor(i * step)]);
};
