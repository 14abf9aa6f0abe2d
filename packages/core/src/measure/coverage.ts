import { heedStop, type StopSignal } from '../progress.ts';
import type { UvBox } from '../surface/uvBox.ts';

/** Lines through a tile along which coverage is measured exactly. */
const LINES = 2048;

/**
 * Part of a tile that triangles cover: what lies on each other counts once, what lies outside not at all. Along each of a
 * fixed number of lines the covered length is the exact union of the intervals that triangles cut out; between lines it is taken as on
 * them. For shells that is right to about a thousandth of the tile.
 *
 * @param flat  UV of the three corners of each triangle, `6 × triangleCount`
 * @param frame  where the tile lies
 * @returns 0 to 1
 * @throws StoppedError when told to stop
 */
export function tileCoverage(flat: Float64Array, frame: UvBox, signal?: StopSignal, lines = LINES): number {
  const { start, from, to } = intervals(flat, frame, lines, signal);
  let covered = 0;
  for (let line = 0; line < lines; line++) {
    if (line % 64 === 0) heedStop(signal);
    const [first, last] = [start[line], start[line + 1]];
    covered += unionLength(from.subarray(first, last), to.subarray(first, last));
  }
  return covered / lines / (frame[2] - frame[0]);
}

/** Where triangles meet each line: intervals of line `i` are `start[i] … start[i + 1]`. */
function intervals(
  flat: Float64Array,
  [left, low, right, high]: UvBox,
  lines: number,
  signal: StopSignal | undefined,
) {
  const tall = high - low;
  const start = new Uint32Array(lines + 1);
  // The lines whose middles lie between the lowest and the highest corner.
  const first = (t: number) =>
    Math.max(0, Math.ceil(((Math.min(flat[t + 1], flat[t + 3], flat[t + 5]) - low) / tall) * lines - 0.5));
  const last = (t: number) =>
    Math.min(
      lines - 1,
      Math.floor(((Math.max(flat[t + 1], flat[t + 3], flat[t + 5]) - low) / tall) * lines - 0.5),
    );
  for (let t = 0; t < flat.length; t += 6)
    for (let line = first(t), end = last(t); line <= end; line++) start[line + 1]++;
  for (let line = 0; line < lines; line++) start[line + 1] += start[line];
  const from = new Float64Array(start[lines]);
  const to = new Float64Array(start[lines]);
  const next = start.slice();
  for (let t = 0; t < flat.length; t += 6) {
    if (t % 60_000 === 0) heedStop(signal);
    for (let line = first(t), end = last(t); line <= end; line++) {
      const v = low + ((line + 0.5) / lines) * tall;
      let [least, most] = [Infinity, -Infinity];
      for (let k = 0; k < 6; k += 2) {
        const [i, j] = [t + k, t + ((k + 2) % 6)];
        if (flat[i + 1] < v === flat[j + 1] < v) continue;
        const u = flat[i] + ((v - flat[i + 1]) / (flat[j + 1] - flat[i + 1])) * (flat[j] - flat[i]);
        if (u < least) least = u;
        if (u > most) most = u;
      }
      const at = next[line]++;
      from[at] = Math.min(right, Math.max(left, least));
      to[at] = Math.max(from[at], Math.min(right, most));
    }
  }
  return { start, from, to };
}

/** Length of the union of intervals, of which beginnings and ends are sorted, each by themselves. */
function unionLength(from: Float64Array, to: Float64Array): number {
  from.sort();
  to.sort();
  let length = 0;
  for (let i = 0, open = 0; i < from.length; ) {
    // Every interval before has ended: here the next stretch begins.
    const begin = from[i];
    let end = begin;
    do {
      while (i < from.length && from[i] <= to[open]) i++;
      end = to[open++];
    } while (open < i);
    length += end - begin;
  }
  return length;
}
