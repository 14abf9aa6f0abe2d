import { grownFaces, shrunkFaces } from '../neighbourhood.ts';
import { pointAt } from './points.ts';
import { type Ground, shownFacesAt, type Target } from './target.ts';

export const faces: Target<'faces'> = {
  id: 'faces',
  thing: ['face', 'faces'],
  onModel: (ground, inside) => facesWhere(ground, (c) => inside[ground.mesh.cornerVertex[c]] === 1),
  inFlat: (ground, inside) => facesWhere(ground, (c) => inside[c] === 1),
  verticesOf: ({ mesh }, face) => mesh.cornerVertex.subarray(mesh.faceStart[face], mesh.faceStart[face + 1]),
  underBrush: (_, items) => [...items],
  grow: ({ mesh }, items) => grownFaces(mesh, items),
  shrink: ({ mesh, connectivity }, items) => shrunkFaces(mesh, connectivity, items),
  neighbours(ground, face) {
    const { mesh, connectivity, shells } = ground;
    return [...connectivity.cornerEdge.subarray(mesh.faceStart[face], mesh.faceStart[face + 1])].flatMap(
      (edge) =>
        shownFacesAt(ground, edge)
          .filter((other) => other !== face)
          .map((other) => ({ edge, face: other, point: pointAt(shells, mesh.faceStart[other]) })),
    );
  },
  count: ({ mesh }) => mesh.faceStart.length - 1,
};

/** Shown faces of which something holds for all corners. */
export function facesWhere({ mesh, hidden }: Ground, isIn: (corner: number) => boolean): number[] {
  const found: number[] = [];
  for (let f = 0; f < hidden.length; f++) {
    if (hidden[f]) continue;
    let all = true;
    for (let c = mesh.faceStart[f]; all && c < mesh.faceStart[f + 1]; c++) all = isIn(c);
    if (all) found.push(f);
  }
  return found;
}
