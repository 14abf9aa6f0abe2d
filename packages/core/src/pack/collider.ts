import { bucketsIn } from './buckets.ts';
import type { Frame } from './frame.ts';
import { GROUP, type Piece } from './pieces.ts';
import type { Places } from './places.ts';

/** Measures how much pieces overlap, their gaps included. */
export interface Collider {
  /** To be called after the place of a piece was changed, and before anything else is asked about it; */
  moved(i: number): void;
  /** and this once it stays there, before anything is asked about others. */
  settled(i: number): void;
  /**
   * Left, low, right and high of the middles at which a piece is inside the frame, as it is turned and scaled; left past right where it never is. The list is
   * written over by the next call.
   */
  range(i: number): Float64Array;
  /** Penetration of the gap of two pieces, summed along their borders; 0 where they are clear. */
  overlap(i: number, j: number): number;
  /** The greatest penetration of the pair that was measured last. */
  penetration(): number;
  /** Calls with each piece whose box comes near to that of a piece. */
  near(i: number, found: (j: number) => void): void;
  /** The weighted sum of the overlaps of a piece, given up past a bound. */
  weightedOverlap(i: number, bound: number): number;
}

export interface ColliderOptions {
  readonly frame: Frame;
  /** That shall be kept between pieces, in the unit of the frame. */
  readonly gap: number;
  /** What is asked for beyond that of some pairs, by `pairKey`. */
  readonly extra: ReadonlyMap<number, number>;
  /** Of pairs, by `pairKey`; 1 of the others. */
  readonly weights: ReadonlyMap<number, number>;
}

/** Two pieces are compared by the samples of each in the distance field of the other, so holes, bays and any turn cost the same. */
export function collider(
  pieces: readonly Piece[],
  places: Places,
  { frame, gap, extra, weights }: ColliderOptions,
): Collider {
  const count = pieces.length;
  const { u, v, angle, scale } = places;
  const [cosine, sine] = [new Float64Array(count), new Float64Array(count)];
  /** Box of each piece in the frame, from its middle. */
  const [reachLeft, reachRight] = [new Float64Array(count), new Float64Array(count)];
  const [reachLow, reachHigh] = [new Float64Array(count), new Float64Array(count)];
  const [minU, maxU, minV, maxV] = [0, 1, 2, 3].map(() => new Float64Array(count));
  /** Angle and scale for which the reach was worked out. */
  const [knownAngle, knownScale] = [new Float64Array(count).fill(Number.NaN), new Float64Array(count)];
  let worst = 0;
  const spans = pieces.map(({ halfWidth, halfHeight }, i) => 2 * scale[i] * Math.max(halfWidth, halfHeight));
  const span = spans.reduce((sum, each) => sum + each, 0) / count;
  const buckets = bucketsIn(count, frame, Math.max(span + gap, (frame[3] - frame[1]) / MOST_BUCKETS));

  function moved(i: number): void {
    if (angle[i] !== knownAngle[i] || scale[i] !== knownScale[i]) {
      const { hull } = pieces[i];
      const [c, s] = [Math.cos(angle[i]), Math.sin(angle[i])];
      let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
      for (let k = 0; k < hull.length; k += 2) {
        const x = scale[i] * (c * hull[k] - s * hull[k + 1]);
        const y = scale[i] * (s * hull[k] + c * hull[k + 1]);
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < low) low = y;
        if (y > high) high = y;
      }
      cosine[i] = c;
      sine[i] = s;
      reachLeft[i] = left;
      reachRight[i] = right;
      reachLow[i] = low;
      reachHigh[i] = high;
      knownAngle[i] = angle[i];
      knownScale[i] = scale[i];
    }
    minU[i] = u[i] + reachLeft[i];
    maxU[i] = u[i] + reachRight[i];
    minV[i] = v[i] + reachLow[i];
    maxV[i] = v[i] + reachHigh[i];
  }

  const bounds = new Float64Array(4);
  function range(i: number): Float64Array {
    bounds[0] = frame[0] + gap - reachLeft[i];
    bounds[1] = frame[1] + gap - reachLow[i];
    bounds[2] = frame[2] - gap - reachRight[i];
    bounds[3] = frame[3] - gap - reachHigh[i];
    return bounds;
  }

  /** Samples of a in the field of b. No allocation inside. */
  function oneWay(a: number, b: number, wanted: number): number {
    const { samples, groups } = pieces[a];
    const { field, halfWidth, halfHeight } = pieces[b];
    const { columns, rows, left, low, cell, distance } = field;
    const inverse = 1 / scale[b];
    const k = scale[a] * inverse;
    const m00 = k * (cosine[b] * cosine[a] + sine[b] * sine[a]);
    const m10 = k * (cosine[b] * sine[a] - sine[b] * cosine[a]);
    const du = (u[a] - u[b]) * inverse;
    const dv = (v[a] - v[b]) * inverse;
    const tu = cosine[b] * du + sine[b] * dv;
    const tv = cosine[b] * dv - sine[b] * du;
    const reach = wanted * inverse;
    const perCell = 1 / cell;
    let sum = 0;
    let deepest = 0;
    for (let group = 0, first = 0; group < groups.length; group += 3, first += 3 * GROUP) {
      const cu = m00 * groups[group] - m10 * groups[group + 1] + tu;
      const cv = m10 * groups[group] + m00 * groups[group + 1] + tv;
      const far = groups[group + 2] * k + reach;
      if (Math.abs(cu) - halfWidth > far || Math.abs(cv) - halfHeight > far) continue;
      const nc = Math.round((cu - left) * perCell);
      const nr = Math.round((cv - low) * perCell);
      if (nc >= 0 && nr >= 0 && nc < columns && nr < rows && distance[nr * columns + nc] - 0.71 * cell > far)
        continue;
      const end = Math.min(samples.length, first + 3 * GROUP);
      for (let f = first; f < end; f += 3) {
        const gu = (m00 * samples[f] - m10 * samples[f + 1] + tu - left) * perCell;
        const gv = (m10 * samples[f] + m00 * samples[f + 1] + tv - low) * perCell;
        const c = Math.floor(gu);
        const r = Math.floor(gv);
        if (c < 0 || r < 0 || c >= columns - 1 || r >= rows - 1) continue;
        const [x, y] = [gu - c, gv - r];
        const node = r * columns + c;
        const d =
          (1 - y) * ((1 - x) * distance[node] + x * distance[node + 1]) +
          y * ((1 - x) * distance[node + columns] + x * distance[node + columns + 1]);
        const depth = reach - d;
        if (depth <= 0) continue;
        if (depth > deepest) deepest = depth;
        sum += depth * samples[f + 2];
      }
    }
    if (deepest * scale[b] > worst) worst = deepest * scale[b];
    return sum * scale[b] * scale[a];
  }

  function overlap(i: number, j: number): number {
    worst = 0;
    const wanted = gap + (extra.size > 0 ? (extra.get(pairKey(i, j)) ?? 0) : 0);
    if (
      minU[i] - maxU[j] > wanted ||
      minU[j] - maxU[i] > wanted ||
      minV[i] - maxV[j] > wanted ||
      minV[j] - maxV[i] > wanted
    )
      return 0;
    return oneWay(i, j, wanted) + oneWay(j, i, wanted);
  }

  function near(i: number, found: (j: number) => void): void {
    const wide = 2 * gap;
    const [left, right, low, high] = [minU[i] - wide, maxU[i] + wide, minV[i] - wide, maxV[i] + wide];
    buckets.visit(left, low, right, high, (j) => {
      if (j !== i && minU[j] <= right && maxU[j] >= left && minV[j] <= high && maxV[j] >= low) found(j);
      return false;
    });
  }

  function weightedOverlap(i: number, bound: number): number {
    let sum = 0;
    const wide = 2 * gap;
    buckets.visit(minU[i] - wide, minV[i] - wide, maxU[i] + wide, maxV[i] + wide, (j) => {
      if (j === i) return false;
      const each = overlap(i, j);
      if (each > 0) sum += each * (weights.get(pairKey(i, j)) ?? 1);
      return sum > bound;
    });
    return sum;
  }

  function settled(i: number): void {
    moved(i);
    buckets.put(i, minU[i], minV[i], maxU[i], maxV[i]);
  }

  for (let i = 0; i < count; i++) settled(i);
  return { moved, settled, range, overlap, penetration: () => worst, near, weightedOverlap };
}

/** Squares in the height of the frame by which near pieces are found, at most. */
const MOST_BUCKETS = 64;

/** The same for both orders of two pieces. */
export const pairKey = (i: number, j: number): number => (i < j ? i * 2 ** 24 + j : j * 2 ** 24 + i);
