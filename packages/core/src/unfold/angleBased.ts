import { type Context, heedStop } from '../progress.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { flatAngles } from './flatAngles.ts';
import { lscm, type Pins } from './lscm.ts';
import { spectralConformal } from './spectral.ts';

/**
 * Angle-based flattening (ABF++): finds the angles of a flat mesh nearest to the surface's, then lays all triangles
 * with those angles in one least-squares solve, as its authors do, so that no error adds up from triangle to triangle.
 *
 * @param loops  the border loops, longest first
 * @param pins  two or more, or none: then nothing says where the map lies and how large it is
 * @returns UV of every shell vertex, `2 × vertexCount`, and the triangles with those angles
 * @throws StoppedError
 */
export function angleBased(
  shell: Shell,
  rest: RestTriangles,
  loops: readonly Uint32Array[],
  pins: Pins | undefined,
  context: Context,
): { uv: Float64Array; flat: RestTriangles } {
  const onBorder = new Uint8Array(shell.positions.length / 3);
  for (const loop of loops) for (const v of loop) onBorder[v] = 1;
  const corners = cornerAngles(rest);
  heedStop(context.signal);
  const { angles } = flatAngles(shell, corners, onBorder, context);
  heedStop(context.signal);
  const flat = fromAngles(angles, rest.area);
  heedStop(context.signal);
  const uv = pins
    ? lscm(shell, flat, pins, context.signal)
    : spectralConformal(shell, flat, loops, context.signal);
  return { uv, flat };
}

/** Angles of each rest triangle, radians, `3 × triangleCount`. */
export function cornerAngles({ local, area }: RestTriangles): Float64Array {
  const angles = new Float64Array(3 * area.length);
  for (let t = 0; t < angles.length; t += 3) {
    const x2 = local[t];
    const x3 = local[t + 1];
    const y3 = local[t + 2];
    angles[t] = Math.atan2(y3, x3);
    angles[t + 1] = Math.atan2(y3, x2 - x3);
    angles[t + 2] = Math.PI - angles[t] - angles[t + 1];
  }
  return angles;
}

/** Triangles with given angles and areas. */
function fromAngles(angles: Float64Array, area: Float64Array): RestTriangles {
  const local = new Float64Array(angles.length);
  let totalArea = 0;
  for (let t = 0; t < area.length; t++) {
    const [a, b, c] = angles.subarray(3 * t, 3 * t + 3);
    // Twice the area is x² sin a sin b / sin c, x the side between a and b.
    const x = Math.sqrt((2 * area[t] * Math.sin(c)) / (Math.sin(a) * Math.sin(b)));
    const side = (x * Math.sin(b)) / Math.sin(c);
    local[3 * t] = x;
    local[3 * t + 1] = side * Math.cos(a);
    local[3 * t + 2] = side * Math.sin(a);
    totalArea += area[t];
  }
  return { local, area, totalArea };
}
