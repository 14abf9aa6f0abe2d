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
  const r = radius ?? meanRadius(mesh, faces, frame);
  return wrapFaces(mesh, faces, frame, sweep, (angle, _, up) => [r * angle, up]);
}

function meanRadius(mesh: Mesh, faces: ArrayLike<number>, frame: Frame): number {
  let [sum, count] = [0, 0];
  for (let i = 0; i < faces.length; i++) {
    for (let c = mesh.faceStart[faces[i]]; c < mesh.faceStart[faces[i] + 1]; c++, count++) {
      const [right, , toward] = inFrame(frame, mesh.positions, mesh.cornerVertex[c]);
      sum += Math.hypot(right, toward);
    }
  }
  return sum > 0 ? sum / count : 1;
}
