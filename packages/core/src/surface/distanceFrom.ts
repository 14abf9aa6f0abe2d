import FlatQueue from 'flatqueue';
import { bucket } from '../mesh/connectivity.ts';
import { type Context, heedStop } from '../progress.ts';

/**
 * Distance along the surface from some vertices to all others, by fast marching (Kimmel and Sethian 1998): a front that passes over each
 * triangle as a straight wave where it can, and along edges where it cannot, as in obtuse triangles.
 *
 * @param positions  `3 × vertexCount`
 * @param sources  vertices at distance 0
 * @returns model units per vertex, Infinity where there is no way
 */
export function distanceFrom(
  positions: Float64Array,
  triangles: Uint32Array,
  sources: Iterable<number>,
  signal?: Context['signal'],
): Float64Array {
  const vertexCount = positions.length / 3;
  const { start, items } = bucket(triangles, vertexCount);
  const distance = new Float64Array(vertexCount).fill(Infinity);
  const done = new Uint8Array(vertexCount);
  const queue = new FlatQueue<number>();
  const offer = (v: number, value: number): void => {
    if (!(value < distance[v])) return;
    distance[v] = value;
    queue.push(v, value);
  };
  for (const v of sources) offer(v, 0);
  for (let passed = 0; queue.length > 0; passed++) {
    if ((passed & 0xfff) === 0) heedStop(signal);
    const v = queue.pop() as number;
    if (done[v]) continue;
    done[v] = 1;
    for (let k = start[v]; k < start[v + 1]; k++) {
      const c = items[k];
      const first = c - (c % 3);
      const p = triangles[first + ((c + 1) % 3)];
      const q = triangles[first + ((c + 2) % 3)];
      if (!done[p]) offer(p, arrival(positions, distance, done, v, q, p));
      if (!done[q]) offer(q, arrival(positions, distance, done, v, p, q));
    }
  }
  return distance;
}

/** The vertex with the greatest distance that is finite. */
export const farthestVertex = (distance: Float64Array): number =>
  distance.reduce((best, d, v) => (d < Infinity && d > distance[best] ? v : best), 0);

/** When a front that has passed v, and w where that is done, comes to p. */
function arrival(
  positions: Float64Array,
  distance: Float64Array,
  done: Uint8Array,
  v: number,
  w: number,
  p: number,
): number {
  const along = distance[v] + between(positions, v, p);
  if (!done[w]) return along;
  // v and w laid on the x axis with p above: the source of the wave lies below, where its circles through both meet.
  const base = between(positions, v, w);
  const [pv, pw] = [between(positions, v, p), between(positions, w, p)];
  const edge = Math.min(along, distance[w] + pw);
  const x = (base * base + pv * pv - pw * pw) / (2 * base);
  const y = Math.sqrt(Math.max(0, pv * pv - x * x));
  const sx = (base * base + distance[v] ** 2 - distance[w] ** 2) / (2 * base);
  const below = distance[v] ** 2 - sx * sx;
  if (!(below >= 0)) return edge;
  const sy = -Math.sqrt(below);
  // The ray must pass between v and w.
  const crossing = sx + ((x - sx) * -sy) / (y - sy);
  if (!(crossing >= 0 && crossing <= base)) return edge;
  return Math.min(edge, Math.hypot(x - sx, y - sy));
}

function between(positions: Float64Array, a: number, b: number): number {
  return Math.hypot(
    positions[3 * a] - positions[3 * b],
    positions[3 * a + 1] - positions[3 * b + 1],
    positions[3 * a + 2] - positions[3 * b + 2],
  );
}
