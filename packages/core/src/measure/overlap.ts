import { orient2d } from 'robust-predicates';
import { heedStop, type StopSignal } from '../progress.ts';
import { meetingBoxes } from './meetingBoxes.ts';

/**
 * Pairs of flat triangles whose insides overlap, found by their boxes. Triangles that only touch, as
 * neighbours do, are no pair.
 *
 * @param uv  UV of the three corners of each triangle, `6 × triangleCount`
 * @param limit  stop after so many pairs
 * @returns indices of the pairs, two a pair, the smaller first
 * @throws StoppedError
 */
export function overlappingTriangles(uv: Float64Array, limit = Infinity, signal?: StopSignal): Uint32Array {
  const count = uv.length / 6;
  if (count < 2) return new Uint32Array(0);
  const box = new Float64Array(4 * count);
  for (let t = 0; t < count; t++) {
    const o = 6 * t;
    const at = 4 * t;
    box[at] = Math.min(uv[o], uv[o + 2], uv[o + 4]);
    box[at + 1] = Math.min(uv[o + 1], uv[o + 3], uv[o + 5]);
    box[at + 2] = Math.max(uv[o], uv[o + 2], uv[o + 4]);
    box[at + 3] = Math.max(uv[o + 1], uv[o + 3], uv[o + 5]);
  }
  heedStop(signal);
  const pairs: number[] = [];
  let looked = 0;
  meetingBoxes(box, (a, b) => {
    if ((++looked & 4095) === 0) heedStop(signal);
    if (insidesOverlap(uv, 6 * a, 6 * b)) pairs.push(Math.min(a, b), Math.max(a, b));
    return pairs.length / 2 < limit;
  });
  return Uint32Array.from(pairs);
}

/** Whether any triangle of one flat shell overlaps one of another. */
export function shellsOverlap(a: Float64Array, b: Float64Array): boolean {
  const both = new Float64Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  const border = a.length / 6;
  const pairs = overlappingTriangles(both);
  for (let i = 0; i < pairs.length; i += 2) if (pairs[i] < border !== pairs[i + 1] < border) return true;
  return false;
}

/** A triangle counts as outside of a side from which it reaches in by less than this part of the height over that side. */
const HAIR = 1e-6;

/**
 * Separating axis test over the six sides (Ericson 2005, 5.2.1), the side of a point decided exactly (Shewchuk 1997). What only touches, to a hair's
 * breadth that files lose by rounding, does not overlap.
 */
function insidesOverlap(uv: Float64Array, a: number, b: number): boolean {
  return !sideSeparates(uv, a, b) && !sideSeparates(uv, b, a);
}

function sideSeparates(uv: Float64Array, a: number, b: number): boolean {
  // Below zero for corners that go round to the left.
  const area = orient2d(uv[a], uv[a + 1], uv[a + 2], uv[a + 3], uv[a + 4], uv[a + 5]);
  if (area === 0) return true;
  const hair = HAIR * Math.abs(area);
  for (let k = 0; k < 3; k++) {
    const i = a + 2 * k;
    const j = a + 2 * ((k + 1) % 3);
    let outside = true;
    for (let m = b; m < b + 6 && outside; m += 2) {
      const side = orient2d(uv[i], uv[i + 1], uv[j], uv[j + 1], uv[m], uv[m + 1]);
      outside = (area > 0 ? side : -side) <= hair;
    }
    if (outside) return true;
  }
  return false;
}
