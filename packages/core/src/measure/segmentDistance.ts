/**
 * Distance of two segments in the plane; 0 where they cross or touch.
 *
 * @param a, b  lists of segments, u and v of both ends of each
 * @param i, j  where in them each begins
 */
export function segmentDistance(a: Float64Array, i: number, b: Float64Array, j: number): number {
  if (segmentsCross(a, i, b, j)) return 0;
  return Math.min(
    toSegment(a, i, b[j], b[j + 1]),
    toSegment(a, i, b[j + 2], b[j + 3]),
    toSegment(b, j, a[i], a[i + 1]),
    toSegment(b, j, a[i + 2], a[i + 3]),
  );
}

/** Whether two segments cross inside both. */
export const segmentsCross = (a: Float64Array, i: number, b: Float64Array, j: number): boolean =>
  side(a, i, b[j], b[j + 1]) * side(a, i, b[j + 2], b[j + 3]) < 0 &&
  side(b, j, a[i], a[i + 1]) * side(b, j, a[i + 2], a[i + 3]) < 0;

const side = (s: Float64Array, o: number, u: number, v: number): number =>
  (s[o + 2] - s[o]) * (v - s[o + 1]) - (s[o + 3] - s[o + 1]) * (u - s[o]);

function toSegment(s: Float64Array, o: number, u: number, v: number): number {
  const [du, dv] = [s[o + 2] - s[o], s[o + 3] - s[o + 1]];
  const square = du * du + dv * dv || 1;
  const t = Math.max(0, Math.min(1, ((u - s[o]) * du + (v - s[o + 1]) * dv) / square));
  return Math.hypot(u - s[o] - t * du, v - s[o + 1] - t * dv);
}
