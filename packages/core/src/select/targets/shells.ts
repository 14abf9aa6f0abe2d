import { facesOfShell, shellsAtEdges } from '../../surface/shells.ts';
import { edges } from './edges.ts';
import { facesWhere } from './faces.ts';
import { pointAt } from './points.ts';
import type { Ground, Target } from './target.ts';

/** Whole shells, by number. */
export const shells: Target<'shells'> = {
  id: 'shells',
  thing: ['shell', 'shells'],
  /** Those with an edge there. */
  onModel: (ground, inside) =>
    shellsAtEdges(ground.connectivity, ground.shells, edges.onModel(ground, inside)),
  /** Those with a face there. */
  inFlat: (ground, inside) =>
    shellsOfFaces(
      ground,
      facesWhere(ground, (c) => inside[c] === 1),
    ),
  verticesOf: ({ mesh, shells: map }, shell) => {
    const [first] = facesOfShell(map, shell);
    return mesh.cornerVertex.subarray(mesh.faceStart[first], mesh.faceStart[first + 1]);
  },
  underBrush: (ground, faces) => shellsOfFaces(ground, faces),
  /** With those that they share a seam with. */
  grow({ connectivity, shells: map }, items) {
    const chosen = new Set(items);
    const grown = new Set(items);
    const { isInterior, edgeCornerStart, edgeCorners, cornerFace } = connectivity;
    for (let e = 0; e < isInterior.length; e++) {
      if (!isInterior[e]) continue;
      const [s, t] = [0, 1].map((k) => map.faceShell[cornerFace[edgeCorners[edgeCornerStart[e] + k]]]);
      if (chosen.has(s)) grown.add(t);
      if (chosen.has(t)) grown.add(s);
    }
    return [...grown];
  },
  shrink: (_, items) => [...items],
  neighbours({ mesh, connectivity, shells: map }, shell) {
    return Array.from({ length: map.shellCount }, (_, s) => s)
      .filter((s) => s !== shell)
      .map((s) => {
        const [face] = facesOfShell(map, s);
        const corner = mesh.faceStart[face];
        return { face, edge: connectivity.cornerEdge[corner], point: pointAt(map, corner) };
      });
  },
  count: ({ shells: map }) => map.shellCount,
};

const shellsOfFaces = ({ shells: map }: Ground, faces: readonly number[]): number[] => [
  ...new Set(faces.map((f) => map.faceShell[f])),
];
