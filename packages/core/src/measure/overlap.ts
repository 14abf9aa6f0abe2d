import Flatbush from 'flatbush';
import { heedStop, type StopSignal } from '../progress.ts';

/**
 * Pairs of flat triangles whose insides overlap, found in a packed R-tree of their boxes. Triangles that only touch, as
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
  const index = new Flatbush(count, 16, Float64Array);
  for (let t = 0; t < count; t++) {
    const o = 6 * t;
    const at = 4 * t;
    box[at] = Math.min(uv[o], uv[o + 2], uv[o + 4]);
    box[at + 1] = Math.min(uv[o + 1], uv[o + 3], uv[o + 5]);
    box[at + 2] = Math.max(uv[o], uv[o + 2], uv[o + 4]);
    box[at + 3] = Math.max(uv[o + 1], uv[o + 3], uv[o + 5]);
    index.add(box[at], box[at + 1], box[at + 2], box[at + 3]);
  }
  heedStop(signal);
  index.finish();
  const pairs: number[] = [];
  for (let t = 0; t < count && pairs.length / 2 < limit; t++) {
    if ((t & 1023) === 0) heedStop(signal);
    const at = 4 * t;
    // Each pair once, from its first triangle.
    index.search(box[at], box[at + 1], box[at + 2], box[at + 3], (other) => {
      if (other > t && pairs.length / 2 < limit && insidesOverlap(uv, 6 * t, 6 * other)) pairs.push(t, other);
      return false;
    });
  }
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

/** Separating axis test over the six sides, with a hair's breadth of allowance for touching. */
function insidesOverlap(uv: Float64Array, a: number, b: number): boolean {
  return !sideSeparates(uv, a, b) && !sideSeparates(uv, b, a);
}

function sideSeparates(uv: Float64Array, a: number, b: number): boolean {
  const area = (uv[a + 2] - uv[a]) * (uv[a + 5] - uv[a + 1]) - (uv[a + 3] - uv[a + 1]) * (uv[a + 4] - uv[a]);
  if (area === 0) return true;
  const winding = area > 0 ? 1 : -1;
  for (let k = 0; k < 3; k++) {
    const i = a + 2 * k;
    const j = a + 2 * ((k + 1) % 3);
    const du = (uv[j] - uv[i]) * winding;
    const dv = (uv[j + 1] - uv[i + 1]) * winding;
    const hair = -1e-6 * Math.abs(area);
    let outside = true;
    for (let m = 0; m < 6 && outside; m += 2) {
      const inside = du * (uv[b + m + 1] - uv[i + 1]) - dv * (uv[b + m] - uv[i]);
      outside = inside <= -hair;
    }
    if (outside) return true;
  }
  return false;
}
