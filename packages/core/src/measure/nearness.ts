import Flatbush from 'flatbush';
import { heedStop, type StopSignal } from '../progress.ts';
import { segmentDistance } from './segmentDistance.ts';

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
      if (segmentDistance(segments, 4 * i, segments, 4 * j) >= gap) return false;
      found.add(own * 2 ** 26 + other);
      pairs.push(own, other);
      return false;
    });
  }
  return Uint32Array.from(pairs);
}
