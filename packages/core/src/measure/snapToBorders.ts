import Flatbush from 'flatbush';
import { segmentsCross } from './segmentDistance.ts';

/** Segments that can be found by where they lie. */
export interface SegmentIndex {
  /** u and v of both ends of each, `4 × count`. */
  readonly segments: Float64Array;
  readonly boxes: Flatbush | undefined;
}

export function segmentIndex(segments: Float64Array): SegmentIndex {
  const count = segments.length / 4;
  if (count === 0) return { segments, boxes: undefined };
  const boxes = new Flatbush(count, 16, Float64Array);
  for (let i = 0; i < segments.length; i += 4) {
    const [a, b, c, d] = [segments[i], segments[i + 1], segments[i + 2], segments[i + 3]];
    boxes.add(Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d));
  }
  boxes.finish();
  return { segments, boxes };
}

/** By how much something is moved more so that it meets what is near. */
export interface BorderSnap {
  readonly by: readonly [u: number, v: number];
  readonly far: number;
  /** What it meets: both ends of an edge, or of the gap; twice the same for a point. */
  readonly at: readonly [u0: number, v0: number, u1: number, v1: number];
}

/** Of each way of meeting a border, the nearest; undefined where none is near. */
export interface BorderSnaps {
  /** A point on a point. */
  readonly point?: BorderSnap;
  /** A point or a middle of an edge on a middle, or a middle on a point. */
  readonly middle?: BorderSnap;
  /** A point on an edge. */
  readonly edge?: BorderSnap;
  /** Both borders as far apart as a gap, where they are nearest. */
  readonly outline?: BorderSnap;
}

/**
 * Where a border that is moved meets borders that stay.
 *
 * @param moved  u and v of both ends of its segments, `4 × count`, before it is moved
 * @param by  how far it is moved
 * @param reach  what is farther than this does not count
 * @param gap  distance that outlines keep
 */
export function snapToBorders(
  moved: Float64Array,
  [byU, byV]: readonly [number, number],
  { segments, boxes }: SegmentIndex,
  reach: number,
  gap: number,
): BorderSnaps {
  if (!boxes) return {};
  const [point, middle, edge] = [nearest(reach), nearest(reach), nearest(reach)];
  const closest = nearest(gap + reach);
  let crosses = false;
  const own = new Float64Array(4);
  const wide = gap + reach;
  for (let i = 0; i < moved.length; i += 4) {
    for (let k = 0; k < 4; k++) own[k] = moved[i + k] + (k % 2 === 0 ? byU : byV);
    const [a, b, c, d] = own;
    boxes.search(
      Math.min(a, c) - wide,
      Math.min(b, d) - wide,
      Math.max(a, c) + wide,
      Math.max(b, d) + wide,
      (found) => {
        meet(4 * found);
        return false;
      },
    );
  }
  return {
    ...(point.held && { point: point.held }),
    ...(middle.held && { middle: middle.held }),
    ...(edge.held && { edge: edge.held }),
    ...(!crosses && closest.held && outlineOf(closest.held, gap, reach)),
  };

  function meet(j: number): void {
    const [u0, v0, u1, v1] = [segments[j], segments[j + 1], segments[j + 2], segments[j + 3]];
    const [mu, mv] = [(u0 + u1) / 2, (v0 + v1) / 2];
    crosses ||= segmentsCross(own, 0, segments, j);
    for (let k = 0; k < 4; k += 2) {
      const [p, q] = [own[k], own[k + 1]];
      point.offer(u0 - p, v0 - q, u0, v0, u0, v0);
      point.offer(u1 - p, v1 - q, u1, v1, u1, v1);
      middle.offer(mu - p, mv - q, u0, v0, u1, v1);
      const [fu, fv, isInside] = foot(u0, v0, u1, v1, p, q);
      if (isInside) edge.offer(fu - p, fv - q, u0, v0, u1, v1);
      closest.offer(fu - p, fv - q, fu, fv, p, q);
    }
    const [nu, nv] = [(own[0] + own[2]) / 2, (own[1] + own[3]) / 2];
    middle.offer(mu - nu, mv - nv, u0, v0, u1, v1);
    for (let k = 0; k < 4; k += 2) {
      const [u, v] = [segments[j + k], segments[j + k + 1]];
      middle.offer(u - nu, v - nv, u, v, u, v);
      const [fu, fv] = foot(own[0], own[1], own[2], own[3], u, v);
      closest.offer(u - fu, v - fv, u, v, fu, fv);
    }
  }
}

/** Keeps the least of what is offered below a reach. */
function nearest(reach: number) {
  const kept = {
    held: undefined as BorderSnap | undefined,
    offer(du: number, dv: number, u0: number, v0: number, u1: number, v1: number): void {
      const far = Math.hypot(du, dv);
      if (far < (kept.held?.far ?? reach)) kept.held = { by: [du, dv], far, at: [u0, v0, u1, v1] };
    },
  };
  return kept;
}

/** What brings two places that are nearest to one another as far apart as a gap. */
function outlineOf({ by, far, at }: BorderSnap, gap: number, reach: number): { outline?: BorderSnap } {
  if (!(far > 0) || Math.abs(far - gap) >= reach) return {};
  const part = 1 - gap / far;
  const move = [by[0] * part, by[1] * part] as const;
  const [u, v, p, q] = at;
  return { outline: { by: move, far: Math.abs(far - gap), at: [u, v, p + move[0], q + move[1]] } };
}

/** The place of a segment that is nearest to a point, and whether it is none of its ends. */
function foot(
  u0: number,
  v0: number,
  u1: number,
  v1: number,
  p: number,
  q: number,
): readonly [u: number, v: number, isInside: boolean] {
  const [du, dv] = [u1 - u0, v1 - v0];
  const t = ((p - u0) * du + (q - v0) * dv) / (du * du + dv * dv || 1);
  const s = Math.max(0, Math.min(1, t));
  return [u0 + s * du, v0 + s * dv, t > 0 && t < 1];
}
