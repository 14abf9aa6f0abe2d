import type { ShellMap } from '../../surface/shells.ts';
import type { Ground, Spot, Target } from './target.ts';

/**
 * Points of the flat: a vertex on one side of the seams that meet there. One is told by a corner of a face, the least of those that lie
 * together in the flat; corners keep their numbers through cuts.
 */
export const points: Target<'points'> = {
  id: 'points',
  thing: ['point', 'points'],
  onModel: (ground, inside) => pointsWhere(ground, (c) => inside[ground.mesh.cornerVertex[c]] === 1),
  inFlat: (ground, inside) => pointsWhere(ground, (c) => inside[c] === 1),
  verticesOf: ({ mesh }, point) => mesh.cornerVertex.subarray(point, point + 1),
  underBrush(ground, faces, isIn) {
    const { mesh, shells } = ground;
    const found = new Set<number>();
    for (const f of faces)
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++)
        if (isIn(mesh.cornerVertex[c])) found.add(pointAt(shells, c));
    return [...found];
  },
  grow(ground, items) {
    const chosen = new Set(items);
    const grown = new Set(items);
    eachSide(ground, (a, b) => {
      if (chosen.has(a)) grown.add(b);
      if (chosen.has(b)) grown.add(a);
    });
    return [...grown];
  },
  shrink(ground, items) {
    const chosen = new Set(items);
    const left = new Set(items);
    eachSide(ground, (a, b) => {
      if (!chosen.has(b)) left.delete(a);
      if (!chosen.has(a)) left.delete(b);
    });
    return [...left];
  },
  neighbours(ground, point) {
    const { connectivity, shells } = ground;
    const found = new Map<number, Spot>();
    eachSide(
      ground,
      (a, b, c) => {
        if (a !== point && b !== point) return;
        const next = a === point ? b : a;
        found.set(next, { point: next, edge: connectivity.cornerEdge[c], face: connectivity.cornerFace[c] });
      },
      shells.faceShell[connectivity.cornerFace[point]],
    );
    return [...found.values()];
  },
  count: ({ mesh }) => mesh.cornerVertex.length,
};

const firstCorners = new WeakMap<Uint32Array, Uint32Array>();

/** The least corner of the point at a corner. */
export function pointAt({ cornerWedge, wedgeStart }: ShellMap, corner: number): number {
  let first = firstCorners.get(cornerWedge);
  if (!first) {
    first = new Uint32Array(wedgeStart[wedgeStart.length - 1]);
    for (let c = cornerWedge.length; c-- > 0; ) first[cornerWedge[c]] = c;
    firstCorners.set(cornerWedge, first);
  }
  return first[cornerWedge[corner]];
}

function pointsWhere({ connectivity, shells, hidden }: Ground, isIn: (corner: number) => boolean): number[] {
  const found = new Set<number>();
  for (let c = 0; c < connectivity.cornerFace.length; c++)
    if (!hidden[connectivity.cornerFace[c]] && isIn(c)) found.add(pointAt(shells, c));
  return [...found];
}

/** Both points of every side of every shown face, with the corner it begins at. */
function eachSide(
  { mesh, connectivity, shells, hidden }: Ground,
  found: (a: number, b: number, corner: number) => void,
  shell?: number,
): void {
  const faces =
    shell === undefined
      ? undefined
      : shells.shellFaces.subarray(shells.shellFaceStart[shell], shells.shellFaceStart[shell + 1]);
  const count = faces?.length ?? mesh.faceStart.length - 1;
  for (let i = 0; i < count; i++) {
    const f = faces?.[i] ?? i;
    if (hidden[f]) continue;
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++)
      found(pointAt(shells, c), pointAt(shells, connectivity.nextCorner[c]), c);
  }
}
