import { type Check, findingOf, type Patient } from './check.ts';

/** Height over longest side below which a face counts as thin. */
const THIN = 1e-3;

/** Faces of no area, or so thin that their angles mean nothing. No repair: taking one out would open a crack. */
export const thinFaces: Check = {
  kind: 'thin-faces',
  when: 'height below a thousandth of the longest side',
  severity: 'hint',
  thing: ['face with next to no area', 'faces with next to no area'],
  effect: 'It is flattened as if it had a little height; its stretch figure means nothing.',
  find(patient) {
    const faces: number[] = [];
    for (let f = 0; f + 1 < patient.mesh.faceStart.length; f++) if (isThin(patient, f)) faces.push(f);
    return findingOf({ faces });
  },
};

/** Twice the area against the square of the longest side. */
function isThin({ mesh }: Patient, f: number): boolean {
  const { positions: p, cornerVertex, faceStart } = mesh;
  const [from, to] = [faceStart[f], faceStart[f + 1]];
  const origin = 3 * cornerVertex[from];
  let [longest, nx, ny, nz] = [0, 0, 0, 0];
  for (let c = from; c < to; c++) {
    const i = 3 * cornerVertex[c];
    const j = 3 * cornerVertex[c + 1 < to ? c + 1 : from];
    const [ax, ay, az] = [p[i] - p[origin], p[i + 1] - p[origin + 1], p[i + 2] - p[origin + 2]];
    const [bx, by, bz] = [p[j] - p[origin], p[j + 1] - p[origin + 1], p[j + 2] - p[origin + 2]];
    nx += ay * bz - az * by;
    ny += az * bx - ax * bz;
    nz += ax * by - ay * bx;
    longest = Math.max(longest, (ax - bx) ** 2 + (ay - by) ** 2 + (az - bz) ** 2);
  }
  return Math.hypot(nx, ny, nz) <= THIN * longest;
}
