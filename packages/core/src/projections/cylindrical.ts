import type { Mesh } from '../mesh/mesh.ts';
import { type Frame, inFrame } from './frame.ts';
import { type Wrapped, wrapFaces } from './wrap.ts';

/**
 * Projection onto a cylinder round a frame's `up`, unrolled: across is the arc at the radius of the cylinder, up is up.
 *
 * @param radius  model units; the mean distance of the faces from the axis when absent
 * @param sweep  radians covered, half to either side of the frame's `toward`; the seam of a full turn is opposite
 */
export function projectCylindrical(
  mesh: Mesh,
  faces: ArrayLike<number>,
  frame: Frame,
  sweep = 2 * Math.PI,
  radius?: number,
): Wrapped {
  const at = inFrame(frame, mesh.positions);
  const r = radius ?? meanRadius(mesh, faces, at);
  return wrapFaces(mesh, faces, at, sweep, r, (_, up) => up);
}

function meanRadius(mesh: Mesh, faces: ArrayLike<number>, at: Float64Array): number {
  let [sum, count] = [0, 0];
  for (let i = 0; i < faces.length; i++) {
    for (let c = mesh.faceStart[faces[i]]; c < mesh.faceStart[faces[i] + 1]; c++, count++) {
      const v = 3 * mesh.cornerVertex[c];
      sum += Math.hypot(at[v], at[v + 2]);
    }
  }
  return sum > 0 ? sum / count : 1;
}
