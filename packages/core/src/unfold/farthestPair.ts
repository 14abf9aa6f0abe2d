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

export function distance(positions: Float64Array, a: number, b: number): number {
  return Math.hypot(
    positions[3 * a] - positions[3 * b],
    positions[3 * a + 1] - positions[3 * b + 1],
    positions[3 * a + 2] - positions[3 * b + 2],
  );
}
