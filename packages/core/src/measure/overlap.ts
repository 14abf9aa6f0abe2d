import Flatbush from 'flatbush';
import { orient2d } from 'robust-predicates';
import { heedStop, type StopSignal } from '../progress.ts';
import { boxesMeet, boxOf, type UvBox } from '../surface/uvBox.ts';
import { meetingBoxes } from './meetingBoxes.ts';

export interface OverlapOptions {
  /** Stop after so many pairs. */
  readonly limit?: number;
  /** Pairs that lie on each other on purpose are left out. */
  readonly isMeant?: (a: number, b: number) => boolean;
  /** 1 for each triangle of which pairs are asked; those of the others among themselves are left out. All when absent. */
  readonly asked?: Uint8Array;
  readonly signal?: StopSignal;
}

/** Most pairs on each other on purpose that are passed over, before looking for others is given up. */
const MOST_MEANT = 1_000_000;

export interface Overlaps {
  /** Indices, two a pair, the smaller first. */
  readonly pairs: Uint32Array;
  /** Whether there may be more. */
  readonly isCutShort: boolean;
}

/**
 * Pairs of flat triangles whose insides overlap, found by their boxes. Triangles that only touch, as
 * neighbours do, are no pair.
 *
 * @param uv  UV of the three corners of each triangle, `6 × triangleCount`
 * @throws StoppedError
 */
export function overlappingTriangles(
  uv: Float64Array,
  { limit = Infinity, isMeant, asked, signal }: OverlapOptions = {},
): Overlaps {
  const all = trianglesBoxes(uv);
  const items = asked && nearAsked(all, asked);
  const boxes = items ? pick(all, items) : all;
  heedStop(signal);
  const pairs: number[] = [];
  let [looked, meant] = [0, 0];
  let isCutShort = false;
  meetingBoxes(boxes, (i, j) => {
    if ((++looked & 4095) === 0) heedStop(signal);
    const a = items ? items[i] : i;
    const b = items ? items[j] : j;
    if (asked && !asked[a] && !asked[b]) return true;
    if (isMeant?.(a, b)) meant++;
    else if (insidesOverlap(uv, 6 * a, 6 * b)) pairs.push(Math.min(a, b), Math.max(a, b));
    isCutShort = pairs.length / 2 >= limit || meant >= MOST_MEANT;
    return !isCutShort;
  });
  return { pairs: Uint32Array.from(pairs), isCutShort };
}

/** `[minU, minV, maxU, maxV]` of each triangle. */
function trianglesBoxes(uv: Float64Array): Float64Array {
  const boxes = new Float64Array((uv.length * 4) / 6);
  for (let o = 0, at = 0; o < uv.length; o += 6, at += 4) {
    boxes[at] = Math.min(uv[o], uv[o + 2], uv[o + 4]);
    boxes[at + 1] = Math.min(uv[o + 1], uv[o + 3], uv[o + 5]);
    boxes[at + 2] = Math.max(uv[o], uv[o + 2], uv[o + 4]);
    boxes[at + 3] = Math.max(uv[o + 1], uv[o + 3], uv[o + 5]);
  }
  return boxes;
}

/** Triangles that are asked for, and others that lie where those are. */
function nearAsked(boxes: Float64Array, asked: Uint8Array): Uint32Array {
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let t = 0; t < asked.length; t++) {
    if (!asked[t]) continue;
    minU = Math.min(minU, boxes[4 * t]);
    minV = Math.min(minV, boxes[4 * t + 1]);
    maxU = Math.max(maxU, boxes[4 * t + 2]);
    maxV = Math.max(maxV, boxes[4 * t + 3]);
  }
  const near = Uint32Array.from({ length: asked.length }, (_, t) => t);
  return near.filter(
    (t) =>
      boxes[4 * t] < maxU && boxes[4 * t + 2] > minU && boxes[4 * t + 1] < maxV && boxes[4 * t + 3] > minV,
  );
}

function pick(boxes: Float64Array, items: Uint32Array): Float64Array {
  const picked = new Float64Array(4 * items.length);
  for (let i = 0; i < items.length; i++)
    for (let k = 0; k < 4; k++) picked[4 * i + k] = boxes[4 * items[i] + k];
  return picked;
}

/** Pairs of triangles of a map that lie on each other, two a pair: `overlappingTriangles` of corners by vertex. */
export const overlapsWithin = (triangles: Uint32Array, uv: Float64Array, limit: number): Uint32Array =>
  overlappingTriangles(
    Float64Array.from({ length: 2 * triangles.length }, (_, i) => uv[2 * triangles[i >> 1] + (i & 1)]),
    { limit },
  ).pairs;

/** Whether any triangle of one flat shell overlaps one of another. */
export function shellsOverlap(a: Float64Array, b: Float64Array): boolean {
  const common = intersection(boxOf(a), boxOf(b));
  const [few, many] = [trianglesIn(a, common), trianglesIn(b, common)].sort((x, y) => x.length - y.length);
  if (few.length === 0) return false;
  const index = new Flatbush(many.length / 6, 16, Float64Array);
  for (let o = 0; o < many.length; o += 6) index.add(...boxOf(many.subarray(o, o + 6)));
  index.finish();
  const both = new Float64Array(12);
  for (let o = 0; o < few.length; o += 6) {
    both.set(few.subarray(o, o + 6));
    let found = false;
    index.search(...boxOf(few.subarray(o, o + 6)), (j) => {
      if (found) return false;
      both.set(many.subarray(6 * j, 6 * j + 6), 6);
      found = insidesOverlap(both, 0, 6);
      return false;
    });
    if (found) return true;
  }
  return false;
}

const intersection = (a: UvBox, b: UvBox): UvBox => [
  Math.max(a[0], b[0]),
  Math.max(a[1], b[1]),
  Math.min(a[2], b[2]),
  Math.min(a[3], b[3]),
];

/** Triangles of which the boxes meet a box. */
function trianglesIn(uv: Float64Array, box: UvBox): Float64Array {
  const kept: number[] = [];
  for (let o = 0; o < uv.length; o += 6)
    if (boxesMeet(boxOf(uv.subarray(o, o + 6)), box)) for (let k = o; k < o + 6; k++) kept.push(uv[k]);
  return Float64Array.from(kept);
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
