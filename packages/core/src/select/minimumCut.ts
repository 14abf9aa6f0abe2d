import { bucket } from '../mesh/connectivity.ts';
import { type Context, heedStop } from '../progress.ts';

/** Capacity left that counts as none, as a part of the largest. */
const NOTHING = 1e-12;

export interface Network {
  readonly nodes: number;
  /** The two nodes that each arc joins, both ways: `2 × arcs`. */
  readonly ends: Uint32Array;
  /** Of each arc, at least 0. */
  readonly capacity: Float64Array;
  readonly source: number;
  readonly sink: number;
}

/**
 * The minimum cut of an undirected network, by augmenting along all shortest ways at a time (Dinic 1970). Of several cuts of the same
 * capacity it is the one nearest to the source.
 *
 * @returns 1 for each node on the source's side: `nodes`
 * @throws StoppedError
 */
export function minimumCut(
  { nodes, ends, capacity, source, sink }: Network,
  signal?: Context['signal'],
): Uint8Array {
  const { start, items } = bucket(ends, nodes);
  // What is left of arc `i >> 1` from `ends[i]` to `ends[i ^ 1]`.
  const left = Float64Array.from(ends, (_, i) => capacity[i >> 1]);
  const nothing = NOTHING * capacity.reduce((most, c) => Math.max(most, c), 0);
  const level = new Int32Array(nodes);
  const order = new Uint32Array(nodes);
  const isReached = (): boolean => {
    level.fill(-1);
    level[source] = 0;
    order[0] = source;
    for (let k = 0, count = 1; k < count; k++)
      for (let j = start[order[k]]; j < start[order[k] + 1]; j++) {
        const to = ends[items[j] ^ 1];
        if (level[to] >= 0 || left[items[j]] <= nothing) continue;
        level[to] = level[order[k]] + 1;
        order[count++] = to;
      }
    return level[sink] >= 0;
  };
  const next = new Uint32Array(nodes);
  while (isReached()) {
    heedStop(signal);
    next.set(start.subarray(0, nodes));
    const way: number[] = [];
    for (let at = source; ; ) {
      if (at === sink) {
        const flow = way.reduce((least, i) => Math.min(least, left[i]), Infinity);
        for (const i of way) {
          left[i] -= flow;
          left[i ^ 1] += flow;
        }
        way.length = way.findIndex((i) => left[i] <= nothing);
        at = way.length > 0 ? ends[way[way.length - 1] ^ 1] : source;
      }
      const onward = (i: number) => left[i] > nothing && level[ends[i ^ 1]] === level[at] + 1;
      while (next[at] < start[at + 1] && !onward(items[next[at]])) next[at]++;
      if (next[at] < start[at + 1]) {
        way.push(items[next[at]]);
        at = ends[items[next[at]] ^ 1];
        continue;
      }
      // A dead end: the arc that led here leads nowhere.
      const back = way.pop();
      if (back === undefined) break;
      at = ends[back];
      next[at]++;
    }
  }
  return Uint8Array.from(level, (l) => (l >= 0 ? 1 : 0));
}
