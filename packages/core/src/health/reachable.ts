import { Vector3 } from 'three';
import { type Context, heedStop } from '../progress.ts';
import { rayCaster, rayTree } from '../surface/rays.ts';
import { fibonacciSphere } from '../surface/sphere.ts';
import type { Patient } from './check.ts';

/** Directions tried from each place, evenly over the sphere. */
const DIRECTIONS = 64;
/** Rays closer to the surface than this, as the sine of their angle with it, are not tried. */
const GRAZING = 0.05;
/** Where on a triangle rays begin: its middle, and towards its corners. */
const PLACES = [
  [1 / 3, 1 / 3],
  [0.8, 0.1],
  [0.1, 0.8],
  [0.1, 0.1],
];

/** From which sides a face can be reached from far outside. */
export const UNSEEN = 0;
export const FRONT = 1;
export const BACK = 2;

/**
 * For every face whether any straight way leads from it out of the model, from its front, its back or both: `FRONT | BACK`. Stops
 * at the first way found on each side.
 *
 * @param sides  with `either`, a face is done once one side is found
 * @param wanted  1 for each face that is asked about; all when absent
 * @throws StoppedError
 */
export function reachable(
  { mesh, triangulation }: Patient,
  sides: 'either' | 'each',
  context: Context,
  wanted?: Uint8Array,
): Uint8Array {
  const { triangleCorners, triangleFace } = triangulation;
  const points = new Float32Array(3 * triangleCorners.length);
  let size = 0;
  triangleCorners.forEach((c, i) => {
    for (let k = 0; k < 3; k++) {
      // About the first point, so that single precision suffices far from the origin.
      const x = mesh.positions[3 * mesh.cornerVertex[c] + k] - mesh.positions[k];
      points[3 * i + k] = x;
      size = Math.max(size, Math.abs(x));
    }
  });
  const seen = new Uint8Array(mesh.faceStart.length - 1);
  if (!(size > 0)) return seen.fill(FRONT);
  const cast = rayCaster(rayTree(points));
  const directions = fibonacciSphere(DIRECTIONS).map((d) => new Vector3(...d));
  // Most ways out lead straight up: for each direction, all of them from those nearest to it to those farthest.
  const nearestFirst = directions.map((d) => [...directions].sort((p, q) => q.dot(d) - p.dot(d)));
  const [a, b, c, n, at] = Array.from({ length: 5 }, () => new Vector3());
  const origin = [0, 0, 0];
  const heading: [number, number, number] = [0, 0, 0];
  const enough = (face: number) =>
    sides === 'either' ? seen[face] !== UNSEEN : seen[face] === (FRONT | BACK);
  for (let t = 0; t < triangleFace.length; t++) {
    if ((t & 255) === 0) {
      heedStop(context.signal);
      context.report({ fraction: t / triangleFace.length });
    }
    const face = triangleFace[t];
    if (enough(face) || (wanted && !wanted[face])) continue;
    a.fromArray(points, 9 * t);
    b.fromArray(points, 9 * t + 3).sub(a);
    c.fromArray(points, 9 * t + 6).sub(a);
    n.crossVectors(b, c);
    if (n.lengthSq() === 0) {
      seen[face] |= FRONT; // nothing to see, and nothing to delete either
      continue;
    }
    n.normalize();
    const upward = nearestFirst[nearest(directions, n)];
    for (const [u, v] of PLACES) {
      at.copy(a).addScaledVector(b, u).addScaledVector(c, v);
      for (const direction of upward) {
        const rise = direction.dot(n);
        if (Math.abs(rise) < GRAZING) continue;
        const side = rise > 0 ? FRONT : BACK;
        if (seen[face] & side) continue;
        const off = Math.sign(rise) * 1e-5 * size;
        at.toArray(origin);
        for (let k = 0; k < 3; k++) origin[k] += off * n.getComponent(k);
        if (cast(origin, direction.toArray(heading))) continue;
        seen[face] |= side;
        if (enough(face)) break;
      }
      if (enough(face)) break;
    }
  }
  return seen;
}

function nearest(directions: readonly Vector3[], n: Vector3): number {
  let [best, most] = [0, -1];
  for (let i = 0; i < directions.length; i++) {
    const dot = directions[i].dot(n);
    if (dot > most) [best, most] = [i, dot];
  }
  return best;
}
