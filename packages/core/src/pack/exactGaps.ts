import { segmentDistance, segmentsCross } from '../measure/segmentDistance.ts';
import type { Piece } from './pieces.ts';
import type { Places } from './places.ts';

/** A pair that is nearer than the gap, and by how much. */
export interface Deficit {
  readonly i: number;
  readonly j: number;
  readonly by: number;
}

/**
 * Pairs of pieces, not both of them locked, whose true borders are nearer than the gap: exact distances of segments, in double precision. Pieces of which one holds the other are not found; distance fields
 * tell those.
 */
export function exactDeficits(
  pieces: readonly Piece[],
  places: Places,
  gap: number,
  locked: readonly boolean[],
): Deficit[] {
  const laid = pieces.map((piece, i) => laidSegments(piece, places, i));
  const boxes = laid.map(boxOf);
  const deficits: Deficit[] = [];
  for (let i = 0; i < pieces.length; i++)
    for (let j = i + 1; j < pieces.length; j++) {
      if (locked[i] && locked[j]) continue;
      const common = [
        Math.max(boxes[i][0], boxes[j][0]) - gap,
        Math.max(boxes[i][1], boxes[j][1]) - gap,
        Math.min(boxes[i][2], boxes[j][2]) + gap,
        Math.min(boxes[i][3], boxes[j][3]) + gap,
      ];
      if (common[0] > common[2] || common[1] > common[3]) continue;
      const least = leastDistance(within(laid[i], common), within(laid[j], common), gap);
      if (least < gap) deficits.push({ i, j, by: gap - least });
    }
  return deficits;
}

/** Segments of a piece where it lies. */
export function laidSegments({ segments }: Piece, { u, v, angle, scale }: Places, i: number): Float64Array {
  const [c, s] = [scale[i] * Math.cos(angle[i]), scale[i] * Math.sin(angle[i])];
  const laid = new Float64Array(segments.length);
  for (let k = 0; k < segments.length; k += 2) {
    laid[k] = c * segments[k] - s * segments[k + 1] + u[i];
    laid[k + 1] = s * segments[k] + c * segments[k + 1] + v[i];
  }
  return laid;
}

function boxOf(segments: Float64Array): number[] {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < segments.length; k += 2) {
    left = Math.min(left, segments[k]);
    right = Math.max(right, segments[k]);
    low = Math.min(low, segments[k + 1]);
    high = Math.max(high, segments[k + 1]);
  }
  return [left, low, right, high];
}

/** Segments whose box meets another. */
function within(segments: Float64Array, [left, low, right, high]: readonly number[]): Float64Array {
  const kept: number[] = [];
  for (let k = 0; k < segments.length; k += 4) {
    if (Math.max(segments[k], segments[k + 2]) < left || Math.min(segments[k], segments[k + 2]) > right)
      continue;
    if (Math.max(segments[k + 1], segments[k + 3]) < low || Math.min(segments[k + 1], segments[k + 3]) > high)
      continue;
    kept.push(segments[k], segments[k + 1], segments[k + 2], segments[k + 3]);
  }
  return Float64Array.from(kept);
}

/** Least distance between segments of two lists, where it is less than a limit. */
function leastDistance(a: Float64Array, b: Float64Array, limit: number): number {
  let least = limit;
  for (let i = 0; i < a.length; i += 4) {
    const [left, right] = [Math.min(a[i], a[i + 2]) - least, Math.max(a[i], a[i + 2]) + least];
    const [low, high] = [Math.min(a[i + 1], a[i + 3]) - least, Math.max(a[i + 1], a[i + 3]) + least];
    for (let j = 0; j < b.length; j += 4) {
      if (b[j] < left && b[j + 2] < left) continue;
      if (b[j] > right && b[j + 2] > right) continue;
      if (b[j + 1] < low && b[j + 3] < low) continue;
      if (b[j + 1] > high && b[j + 3] > high) continue;
      least = Math.min(least, segmentsCross(a, i, b, j) ? CROSSING : segmentDistance(a, i, b, j));
    }
  }
  return least;
}

/** Distance of segments that cross, in heights of a tile: less than any gap, 0 too, and large enough to show in the next round. */
const CROSSING = -1e-4;
