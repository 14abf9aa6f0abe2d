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
  const at = inFrame(frame, mesh.positions);
  let [sum, count] = [0, 0];
  for (let i = 0; i < faces.length; i++) {
    for (let c = mesh.faceStart[faces[i]]; c < mesh.faceStart[faces[i] + 1]; c++, count++) {
      const v = 3 * mesh.cornerVertex[c];
      sum += Math.hypot(at[v], at[v + 1], at[v + 2]);
    }
  }
  const r = sum > 0 ? sum / count : 1;
  return wrapFaces(
    mesh,
    faces,
    at,
    sweep,
    r,
    (right, up, toward) => r * Math.atan2(up, Math.hypot(right, toward)),
  );
}
