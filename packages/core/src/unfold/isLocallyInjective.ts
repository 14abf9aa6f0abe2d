import { signedArea, triangleArea } from '../surface/flatArea.ts';

/** No triangle may shrink to less than this part of its due area. */
const LEAST = 1e-6;

/** A triangle must be higher than this part of the whole map, or a turn of the map would flip it. */
const ROUNDING = 1e-13;

/**
 * True when no triangle of a map is flipped or as good as collapsed, and the triangles round every inner vertex go round
 * it once: a map may have all its triangles the right way up and still wind twice round a point.
 *
 * @param area  of each triangle on the surface
 * @param onBorder  1 for each vertex of a border
 * @param part  of its due area at which a triangle counts as collapsed
 */
export function isLocallyInjective(
  triangles: Uint32Array,
  uv: Float64Array,
  area: Float64Array,
  onBorder: Uint8Array,
  part = LEAST,
): boolean {
  const whole = signedArea(triangles, uv);
  if (!(whole > 0)) return false;
  let total = 0;
  for (let t = 0; t < area.length; t++) total += area[t];
  const least = part * (whole / total);
  const extent = extentOf(uv);
  // No side is longer than the way across the box of the map.
  const highest = ROUNDING * extent * (4 * extent);
  const turns = new Uint8Array(onBorder.length);
  for (let t = 0; t < area.length; t++) {
    const own = triangleArea(triangles, uv, t);
    if (!(own > least * area[t])) return false;
    if (own <= highest && own <= ROUNDING * extent * longestSide(triangles, uv, t)) return false;
    for (let k = 0; k < 3; k++) {
      const p = triangles[3 * t + k];
      const q = triangles[3 * t + ((k + 1) % 3)];
      const r = triangles[3 * t + ((k + 2) % 3)];
      // The direction +u from p lies between q and r when q is below it and r is not.
      if (isBelow(uv, p, q) && !isBelow(uv, p, r)) turns[p]++;
    }
  }
  for (let v = 0; v < turns.length; v++) if (!onBorder[v] && turns[v] !== 1) return false;
  return true;
}

/** Whether q lies in the half-plane below p, the one side of its edge included. */
function isBelow(uv: Float64Array, p: number, q: number): boolean {
  const up = uv[2 * q + 1] - uv[2 * p + 1];
  return up < 0 || (up === 0 && uv[2 * q] < uv[2 * p]);
}

function longestSide(triangles: Uint32Array, uv: Float64Array, t: number): number {
  let longest = 0;
  for (let k = 0; k < 3; k++) {
    const [p, q] = [2 * triangles[3 * t + k], 2 * triangles[3 * t + ((k + 1) % 3)]];
    longest = Math.max(longest, Math.hypot(uv[p] - uv[q], uv[p + 1] - uv[q + 1]));
  }
  return longest;
}

function extentOf(uv: Float64Array): number {
  let far = 0;
  for (let i = 2; i < uv.length; i++) far = Math.max(far, Math.abs(uv[i] - uv[i % 2]));
  return far;
}
