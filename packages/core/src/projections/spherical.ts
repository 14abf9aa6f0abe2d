import type { Mesh } from '../mesh/mesh.ts';
import { type Frame, inFrame } from './frame.ts';
import { type Wrapped, wrapFaces } from './wrap.ts';

/**
 * Projection onto a sphere about a frame's origin, in equidistant cylindrical form (Snyder 1987, chapter 12): across is
 * longitude, up is latitude, both as arcs at the mean radius.
 *
 * @param sweep  radians of longitude covered, half to either side of the frame's `toward`
 */
export function projectSpherical(
  mesh: Mesh,
  faces: ArrayLike<number>,
  frame: Frame,
  sweep = 2 * Math.PI,
): Wrapped {
  let [sum, count] = [0, 0];
  for (let i = 0; i < faces.length; i++) {
    for (let c = mesh.faceStart[faces[i]]; c < mesh.faceStart[faces[i] + 1]; c++, count++) {
      sum += Math.hypot(...inFrame(frame, mesh.positions, mesh.cornerVertex[c]));
    }
  }
  const r = sum > 0 ? sum / count : 1;
  return wrapFaces(mesh, faces, frame, sweep, (angle, right, up, toward) => [
    r * angle,
    r * Math.atan2(up, Math.hypot(right, toward)),
  ]);
}
