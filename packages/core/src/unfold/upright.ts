import { surfaceArea } from '../surface/areas.ts';
import type { Shell } from '../surface/shell.ts';

/**
 * Turns a flat shell so that what is up on the model is up on the texture (+v), as nearly as one turn can.
 * A shell seen from straight above has no up; then what is away from the viewer takes its place.
 *
 * @param uv  `2 × vertexCount`; only turned, about the origin
 * @param upAxis  0 where y points up and −z away, 1 where z points up and y away
 */
export function turnUpright(shell: Shell, uv: Float64Array, upAxis = 0): Float64Array {
  const [u, v] = upInFlat(shell, uv, upAxis);
  const length = Math.hypot(u, v);
  if (!(length > 0)) return uv;
  const c = v / length;
  const s = u / length;
  const turned = new Float64Array(uv.length);
  for (let i = 0; i < uv.length; i += 2) {
    turned[i] = c * uv[i] - s * uv[i + 1];
    turned[i + 1] = s * uv[i] + c * uv[i + 1];
  }
  return turned;
}

/** The way that is up on a shell as it lies flat, or away from the viewer on one that is seen from straight above. */
export function upInFlat(shell: Shell, uv: Float64Array, upAxis = 0): readonly [u: number, v: number] {
  const [u, v, strength] = upwards(shell, uv, upAxis);
  if (strength > 0.05) return [u, v];
  const [awayU, awayV] = meanGradient(shell, uv, upAxis === 0 ? 2 : 1, upAxis === 0 ? -1 : 1);
  return [awayU, awayV];
}

/**
 * The way that is up on a shell as it lies flat, and how much of the shell agrees with it: 1 all of a flat piece that stands upright, 0
 * one that lies level or goes round.
 */
export const upwards = (
  shell: Shell,
  uv: Float64Array,
  upAxis = 0,
): readonly [u: number, v: number, strength: number] => meanGradient(shell, uv, upAxis === 0 ? 1 : 2, 1);

/** Area-weighted mean over the flat shell of the gradient of one coordinate, and its length for a shell as large as its surface. */
function meanGradient({ positions, triangles }: Shell, uv: Float64Array, axis: number, sign: number) {
  let gu = 0;
  let gv = 0;
  let area = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const a = triangles[i];
    const b = triangles[i + 1];
    const c = triangles[i + 2];
    const bu = uv[2 * b] - uv[2 * a];
    const bv = uv[2 * b + 1] - uv[2 * a + 1];
    const cu = uv[2 * c] - uv[2 * a];
    const cv = uv[2 * c + 1] - uv[2 * a + 1];
    const hb = sign * (positions[3 * b + axis] - positions[3 * a + axis]);
    const hc = sign * (positions[3 * c + axis] - positions[3 * a + axis]);
    // Gradient × twice the area, so the weight is already in.
    gu += hb * cv - hc * bv;
    gv += hc * bu - hb * cu;
    area += bu * cv - bv * cu;
  }
  // Of a shell that lies upside down areas are negative.
  const side = area < 0 ? -1 : 1;
  const scale = Math.sqrt(Math.abs(area) / (2 * surfaceArea(positions, triangles)));
  return [side * gu, side * gv, area === 0 ? 0 : (scale * Math.hypot(gu, gv)) / Math.abs(area)] as const;
}
