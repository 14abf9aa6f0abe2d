/**
 * Carries what texels hold outward over those that hold nothing, as far as a distance: each takes what its nearest neighbour holds. By vector
 * distance transform (Danielsson 1980), two passes over the rows; it can miss the nearest by a fraction of a texel.
 *
 * @param values  `channels × width × height`, written over
 * @param covered  1 for texels that hold something
 * @param reach  texels
 * @returns 1 for texels that hold something now
 */
export function bleed(
  values: Uint16Array,
  channels: number,
  covered: Uint8Array,
  width: number,
  reach: number,
): Uint8Array {
  const height = covered.length / width;
  const source = nearestCovered(covered, width, height, reach);
  const filled = covered.slice();
  for (let i = 0; i < source.length; i++) {
    if (covered[i] || source[i] < 0) continue;
    filled[i] = 1;
    for (let k = 0; k < channels; k++) values[channels * i + k] = values[channels * source[i] + k];
  }
  return filled;
}

/** For each texel the nearest covered one within reach, or -1. */
function nearestCovered(covered: Uint8Array, width: number, height: number, reach: number): Int32Array {
  const nearest = Int32Array.from(covered, (yes, i) => (yes ? i : -1));
  const far = (i: number, x: number, y: number): number =>
    (x - (i % width)) ** 2 + (y - Math.floor(i / width)) ** 2;
  const offer = (at: number, x: number, y: number, from: number): void => {
    const i = nearest[from];
    if (i < 0) return;
    const distance = far(i, x, y);
    if (distance > reach * reach) return;
    const held = nearest[at];
    if (held < 0 || distance < far(held, x, y)) nearest[at] = i;
  };
  const sweep = (y: number, back: number): void => {
    const row = y * width;
    const isIn = y + back >= 0 && y + back < height;
    for (let x = 0; x < width; x++) {
      if (covered[row + x]) continue;
      if (isIn)
        for (let dx = -1; dx <= 1; dx++)
          if (x + dx >= 0 && x + dx < width) offer(row + x, x, y, row + x + dx + back * width);
      if (x > 0) offer(row + x, x, y, row + x - 1);
    }
    for (let x = width - 2; x >= 0; x--) if (!covered[row + x]) offer(row + x, x, y, row + x + 1);
  };
  for (let y = 0; y < height; y++) sweep(y, -1);
  for (let y = height - 1; y >= 0; y--) sweep(y, 1);
  return nearest;
}
