import { withFlipped } from '../mesh/edit.ts';
import { faceCount } from '../mesh/mesh.ts';
import { type Check, findingOf, type Patient } from './check.ts';

/** Faces that run round the other way than most of the surface they belong to. */
export const mixedWinding: Check = {
  kind: 'mixed-winding',
  when: 'within a piece, the faces that disagree with the greater part; nothing on a Möbius band',
  severity: 'spoils',
  thing: [
    'face that faces the other way than its neighbours',
    'faces that face the other way than their neighbours',
  ],
  effect: 'Shells are cut off there, and the texture would be seen from behind.',
  find: (patient) => findingOf({ faces: minority(patient) }),
  repair: {
    label: 'Turn them over',
    safe: true,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withFlipped(mesh, faces),
  },
};

/**
 * Of every piece joined by edges of two faces, the faces to turn over so that all agree, fewer than half of it; none where they
 * cannot agree, as on a Möbius band.
 */
function minority({ mesh, connectivity }: Patient): number[] {
  const faces = faceCount(mesh);
  const side = new Int8Array(faces); // 1 or −1 once reached
  const turned: number[] = [];
  for (let start = 0; start < faces; start++) {
    if (side[start] !== 0) continue;
    side[start] = 1;
    const piece = [start];
    let agree = true;
    for (const f of piece) {
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const e = connectivity.cornerEdge[c];
        const first = connectivity.edgeCornerStart[e];
        if (connectivity.edgeCornerStart[e + 1] - first !== 2) continue;
        const other =
          connectivity.edgeCorners[first] === c
            ? connectivity.edgeCorners[first + 1]
            : connectivity.edgeCorners[first];
        const g = connectivity.cornerFace[other];
        if (g === f) continue;
        const wanted = mesh.cornerVertex[other] === mesh.cornerVertex[c] ? -side[f] : side[f];
        if (side[g] === 0) {
          side[g] = wanted;
          piece.push(g);
        } else if (side[g] !== wanted) agree = false;
      }
    }
    if (!agree) continue;
    const back = piece.filter((f) => side[f] < 0);
    const fewer = 2 * back.length <= piece.length ? back : piece.filter((f) => side[f] > 0);
    turned.push(...fewer);
  }
  return turned.sort((a, b) => a - b);
}
