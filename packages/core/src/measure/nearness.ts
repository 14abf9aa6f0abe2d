import Flatbush from 'flatbush';
import { heedStop, type StopSignal } from '../progress.ts';

/**
 * Which of some groups of segments come nearer than a gap to another group: for shells, whose borders these are, too near for the
 * texture of one not to bleed into the other.
 *
 * @param segments  u and v of both ends of each, `4 × count`
 * @param groups  of each segment
 * @param gap  least distance that is far enough
 * @returns pairs of groups, the smaller first, two numbers a pair
 */
export function nearGroups(
  segments: Float64Array,
  groups: Uint32Array,
  gap: number,
  signal?: StopSignal,
): Uint32Array {
  const count = groups.length;
  if (count === 0) return new Uint32Array(0);
  const index = new Flatbush(count, 16, Float64Array);
  const box = (i: number): [number, number, number, number] => {
    const [a, b, c, d] = segments.subarray(4 * i, 4 * i + 4);
    return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
  };
  for (let i = 0; i < count; i++) index.add(...box(i));
  index.finish();
  const found = new Set<number>();
  const pairs: number[] = [];
  for (let i = 0; i < count; i++) {
    if ((i & 511) === 0) heedStop(signal);
    const [minU, minV, maxU, maxV] = box(i);
    const own = groups[i];
    index.search(minU - gap, minV - gap, maxU + gap, maxV + gap, (j) => {
      const other = groups[j];
      // Each pair once, by the smaller group.
      if (other <= own || found.has(own * 2 ** 26 + other)) return false;
      if (distanceOf(segments, i, j) >= gap) return false;
      found.add(own * 2 ** 26 + other);
      pairs.push(own, other);
      return false;
    });
  }
  return Uint32Array.from(pairs);
}

/** Distance of two segments in the plane; 0 where they cross. */
function distanceOf(s: Float64Array, i: number, j: number): number {
  const [a, b] = [4 * i, 4 * j];
  const side = (o: number, u: number, v: number) =>
    (s[o + 2] - s[o]) * (v - s[o + 1]) - (s[o + 3] - s[o + 1]) * (u - s[o]);
  const [d1, d2] = [side(a, s[b], s[b + 1]), side(a, s[b + 2], s[b + 3])];
  const [d3, d4] = [side(b, s[a], s[a + 1]), side(b, s[a + 2], s[a + 3])];
  if (d1 * d2 < 0 && d3 * d4 < 0) return 0;
  return Math.min(
    toSegment(s, a, s[b], s[b + 1]),
    toSegment(s, a, s[b + 2], s[b + 3]),
    toSegment(s, b, s[a], s[a + 1]),
    toSegment(s, b, s[a + 2], s[a + 3]),
  );
}

function toSegment(s: Float64Array, o: number, u: number, v: number): number {
  const [du, dv] = [s[o + 2] - s[o], s[o + 3] - s[o + 1]];
  const square = du * du + dv * dv || 1;
  const t = Math.max(0, Math.min(1, ((u - s[o]) * du + (v - s[o + 1]) * dv) / square));
  return Math.hypot(u - s[o] - t * du, v - s[o + 1] - t * dv);
}
