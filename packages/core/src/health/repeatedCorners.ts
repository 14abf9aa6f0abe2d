import { withJoined } from '../mesh/edit.ts';
import { type Check, findingOf } from './check.ts';

/** Faces that name one point twice in a row. */
export const repeatedCorners: Check = {
  kind: 'repeated-corners',
  when: 'a face names one point twice in a row',
  severity: 'spoils',
  thing: ['face with a repeated corner', 'faces with a repeated corner'],
  effect: 'Part of it has no area; a face of no area gets no texture and unsettles what lies beside it.',
  find({ mesh }) {
    const faces: number[] = [];
    for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
      const [from, to] = [mesh.faceStart[f], mesh.faceStart[f + 1]];
      for (let c = from; c < to; c++) {
        if (mesh.cornerVertex[c] !== mesh.cornerVertex[c + 1 < to ? c + 1 : from]) continue;
        faces.push(f);
        break;
      }
    }
    return findingOf({ faces });
  },
  repair: {
    label: 'Drop the repeats',
    safe: true,
    run: ({ mesh }) =>
      withJoined(
        mesh,
        Uint32Array.from({ length: mesh.positions.length / 3 }, (_, v) => v),
      ),
  },
};
