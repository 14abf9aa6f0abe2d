import { heedStop, type StopSignal } from '../progress.ts';

/** Lines through the tile along which coverage is measured exactly. */
const LINES = 2048;

/**
 * Part of the unit tile that triangles cover: what lies on each other counts once, what lies outside not at all. Along each of a
 * fixed number of lines the covered length is the exact union of the intervals that triangles cut out; between lines it is taken as on
 * them. For shells that is right to about a thousandth of the tile.
 *
 * @param flat  UV of the three corners of each triangle, `6 × triangleCount`, tile units
 * @returns 0 to 1
 * @throws StoppedError when told to stop
 */
export function tileCoverage(flat: Float64Array, signal?: StopSignal, lines = LINES): number {
  const { start, from, to } = intervals(flat, lines, signal);
  let covered = 0;
  for (let line = 0; line < lines; line++) {
    if (line % 64 === 0) heedStop(signal);
    covered += unionLength(from, to, start[line], start[line + 1]);
  }
  return covered / lines;
}

/** Where triangles meet each line, inside the tile: intervals of line `i` are `start[i] … start[i + 1]`. */
function intervals(flat: Float64Array, lines: number, signal: StopSignal | undefined) {
  const start = new Uint32Array(lines + 1);
  const each = (take: (line: number, from: number, to: number) => void): void => {
    for (let t = 0; t < flat.length; t += 6) {
      if (t % 60_000 === 0) heedStop(signal);
      const low = Math.min(flat[t + 1], flat[t + 3], flat[t + 5]);
      const high = Math.max(flat[t + 1], flat[t + 3], flat[t + 5]);
      // The middles of lines that lie between.
      const first = Math.max(0, Math.ceil(low * lines - 0.5));
      const last = Math.min(lines - 1, Math.floor(high * lines - 0.5));
      for (let line = first; line <= last; line++) {
        const [a, b] = section(flat, t, (line + 0.5) / lines);
        if (b > 0 && a < 1 && b > a) take(line, Math.max(0, a), Math.min(1, b));
      }
    }
  };
  each((line) => start[line + 1]++);
  for (let line = 0; line < lines; line++) start[line + 1] += start[line];
  const from = new Float64Array(start[lines]);
  const to = new Float64Array(start[lines]);
  const next = start.slice();
  each((line, a, b) => {
    const at = next[line]++;
    from[at] = a;
    to[at] = b;
  });
  return { start, from, to };
}

/** Least and greatest u of a triangle at a height between its corners. */
function section(flat: Float64Array, t: number, v: number): readonly [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (let k = 0; k < 6; k += 2) {
    const [u0, v0] = [flat[t + k], flat[t + k + 1]];
    const [u1, v1] = [flat[t + ((k + 2) % 6)], flat[t + ((k + 3) % 6)]];
    if (v0 < v === v1 < v) continue;
    const u = u0 + ((v - v0) / (v1 - v0)) * (u1 - u0);
    least = Math.min(least, u);
    most = Math.max(most, u);
  }
  return [least, most];
}

function unionLength(from: Float64Array, to: Float64Array, first: number, last: number): number {
  const order = Uint32Array.from({ length: last - first }, (_, i) => first + i);
  order.sort((i, j) => from[i] - from[j]);
  let [length, end] = [0, 0];
  for (const i of order) {
    if (to[i] <= end) continue;
    length += to[i] - Math.max(end, from[i]);
    end = to[i];
  }
  return length;
}
