/**
 * How far along its chain each end of each line is, `2 × lines`, so that dashes run on over short lines.
 *
 * @param positions  xyz of both ends of every line, `6 × lines`, turned round where that joins them
 * @param isBreak  whether a line begins a chain anew
 * @param ends  what stands for both ends of each line, turned round with it
 */
export function distancesAlong(
  positions: Float32Array,
  isBreak: (line: number) => boolean,
  ends?: Uint32Array,
): Float32Array {
  const distances = new Float32Array(positions.length / 3);
  const same = (a: number, b: number) =>
    positions[a] === positions[b] &&
    positions[a + 1] === positions[b + 1] &&
    positions[a + 2] === positions[b + 2];
  let along = 0;
  for (let line = 0; line < positions.length / 6; line++) {
    const at = 6 * line;
    const alone = line === 0 || isBreak(line);
    const next = at + 6 < positions.length && !isBreak(line + 1) ? at + 6 : undefined;
    const turned = alone
      ? next !== undefined && (same(at, next) || same(at, next + 3))
      : same(at + 3, at - 6) || same(at + 3, at - 3);
    if (turned) {
      for (let k = 0; k < 3; k++) {
        const x = positions[at + k];
        positions[at + k] = positions[at + 3 + k];
        positions[at + 3 + k] = x;
      }
      if (ends) [ends[2 * line], ends[2 * line + 1]] = [ends[2 * line + 1], ends[2 * line]];
    }
    if (alone) along = 0;
    distances[2 * line] = along;
    along += Math.hypot(
      positions[at + 3] - positions[at],
      positions[at + 4] - positions[at + 1],
      positions[at + 5] - positions[at + 2],
    );
    distances[2 * line + 1] = along;
  }
  return distances;
}

/** Mean length of lines, of some of them where there are many. */
export function meanLength(positions: Float32Array): number {
  const lines = positions.length / 6;
  const stride = Math.max(1, Math.floor(lines / 2000));
  let [sum, count] = [0, 0];
  for (let i = 0; i < lines; i += stride, count++) {
    const at = 6 * i;
    sum += Math.hypot(
      positions[at + 3] - positions[at],
      positions[at + 4] - positions[at + 1],
      positions[at + 5] - positions[at + 2],
    );
  }
  return count > 0 ? sum / count : 0;
}
