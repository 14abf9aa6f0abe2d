import { distance } from '../mesh/distance.ts';

/**
 * Two vertices of a border far apart: the farthest from the border's first vertex, then the farthest from that
 * one, by straight distance. Pinning such a pair keeps a conformal map from shrinking one end.
 *
 * @param loop  border vertices
 */
export function farthestPair(positions: Float64Array, loop: Uint32Array): [number, number] {
  const first = farthestFrom(positions, loop, loop[0]);
  let second = farthestFrom(positions, loop, first);
  if (second === first) second = loop.find((v) => v !== first) ?? first;
  return [first, second];
}

function farthestFrom(positions: Float64Array, loop: Uint32Array, from: number): number {
  let best = from;
  let most = 0;
  for (const v of loop) {
    const length = distance(positions, from, v);
    if (length > most) {
      most = length;
      best = v;
    }
  }
  return best;
}
