import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { type Frame, frameFacing } from './frame.ts';
import { projectPlanar } from './planar.ts';

/**
 * Projection from the six sides of a box: each face from the side it looks at most squarely, so that none is mirrored or
 * collapses.
 *
 * @param frame  the box's directions
 * @returns UV of every corner of the mesh in model units, `2 × cornerCount`, NaN outside `faces`
 */
export function projectBox(mesh: Mesh, faces: ArrayLike<number>, frame: Frame): Float64Array {
  const axes = [frame.right, frame.up, frame.toward];
  const bySide: number[][] = [[], [], [], [], [], []];
  for (let i = 0; i < faces.length; i++) {
    const vector = faceNormal(mesh, faces[i]);
    const along = axes.map((axis) => axis[0] * vector[0] + axis[1] * vector[1] + axis[2] * vector[2]);
    const sizes = along.map(Math.abs);
    const axis = sizes.indexOf(Math.max(...sizes));
    bySide[2 * axis + (along[axis] < 0 ? 1 : 0)].push(faces[i]);
  }
  const uv = new Float64Array(2 * mesh.cornerVertex.length).fill(NaN);
  bySide.forEach((side, s) => {
    if (side.length === 0) return;
    const toward = axes[s >> 1].map((x) => (s & 1 ? -x : x));
    const up = s >> 1 === 1 ? frame.toward.map((x) => (s & 1 ? x : -x)) : frame.up;
    const flat = projectPlanar(mesh, side, frameFacing(frame.origin, toward, up));
    for (const f of side)
      for (let i = 2 * mesh.faceStart[f]; i < 2 * mesh.faceStart[f + 1]; i++) uv[i] = flat[i];
  });
  return uv;
}
