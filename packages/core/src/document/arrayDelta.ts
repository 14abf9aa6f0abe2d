/** The arrays a document is made of. */
export type NumberArray = Float64Array | Uint32Array | Int32Array | Uint16Array | Uint8Array;

/**
 * How the items of one list became those of another: runs of items that were kept, in the same order in both; whatever lies between
 * was taken out, or put in.
 */
export interface Runs {
  readonly before: number;
  readonly after: number;
  /** First item before, first item after and length of each run, rising in both. */
  readonly kept: Uint32Array;
}

export const reversed = ({ before, after, kept }: Runs): Runs => ({
  before: after,
  after: before,
  kept: kept.map((_, i) => kept[i % 3 === 0 ? i + 1 : i % 3 === 1 ? i - 1 : i]),
});

/**
 * Runs from where each new item came from. Items that come twice, or out of order, count as put in.
 *
 * @param source  old item of each new one; anything not below `before` for none
 */
export function runsOf(source: ArrayLike<number>, before: number): Runs {
  const kept: number[] = [];
  let next = 0;
  for (let i = 0; i < source.length; i++) {
    const from = source[i];
    if (!(from >= next && from < before)) continue;
    const last = kept.length - 3;
    if (last >= 0 && from === kept[last] + kept[last + 2] && i === kept[last + 1] + kept[last + 2])
      kept[last + 2]++;
    else kept.push(from, i, 1);
    next = from + 1;
  }
  return { before, after: source.length, kept: Uint32Array.from(kept) };
}

/** New item of each kept old one, `GONE` for the others. */
export function renumbering({ before, kept }: Runs): Uint32Array {
  const to = new Uint32Array(before).fill(GONE);
  for (let r = 0; r < kept.length; r += 3) {
    for (let i = 0; i < kept[r + 2]; i++) to[kept[r] + i] = kept[r + 1] + i;
  }
  return to;
}

export const GONE = 0xffffffff;

/** What leads from one array to another along runs, either way. */
export interface ArrayDelta<T extends NumberArray = NumberArray> {
  /** Values of items that were taken out, and of those put in. */
  readonly gone: T;
  readonly fresh: T;
  /** Values that differ although their item was kept: which value of the kept ones, counted in order, and both values. */
  readonly at: Uint32Array;
  readonly before: T;
  readonly after: T;
}

export const reverseArrayDelta = <T extends NumberArray>(delta: ArrayDelta<T>): ArrayDelta<T> => ({
  gone: delta.fresh,
  fresh: delta.gone,
  at: delta.at,
  before: delta.after,
  after: delta.before,
});

/**
 * @param width  values an item
 * @param expected  what kept values become by themselves; the same when absent
 */
export function arrayDelta<T extends NumberArray>(
  before: T,
  after: T,
  runs: Runs,
  width: number,
  expected: (value: number) => number = (value) => value,
): ArrayDelta<T> {
  const at: number[] = [];
  const from: number[] = [];
  const to: number[] = [];
  let count = 0;
  const { kept } = runs;
  for (let r = 0; r < kept.length; r += 3) {
    const length = width * kept[r + 2];
    const [b, a] = [width * kept[r], width * kept[r + 1]];
    for (let i = 0; i < length; i++) {
      if (Object.is(expected(before[b + i]), after[a + i])) continue;
      at.push(count + i);
      from.push(before[b + i]);
      to.push(after[a + i]);
    }
    count += length;
  }
  const like = (values: readonly number[]): T =>
    (before.constructor as unknown as { from(v: readonly number[]): T }).from(values);
  return {
    gone: between(before, runs.before, width, kept, 0),
    fresh: between(after, runs.after, width, kept, 1),
    at: Uint32Array.from(at),
    before: like(from),
    after: like(to),
  };
}

/** Values of the items of one side that lie outside the runs. */
function between<T extends NumberArray>(
  array: T,
  items: number,
  width: number,
  kept: Uint32Array,
  side: 0 | 1,
): T {
  let inside = 0;
  for (let r = 2; r < kept.length; r += 3) inside += kept[r];
  const out = new (array.constructor as new (length: number) => T)(width * (items - inside));
  let [at, next] = [0, 0];
  const take = (end: number) => {
    out.set(array.subarray(width * next, width * end), at);
    at += width * (end - next);
  };
  for (let r = 0; r < kept.length; r += 3) {
    take(kept[r + side]);
    next = kept[r + side] + kept[r + 2];
  }
  take(items);
  return out;
}

/** The array a delta leads to; the arguments as in `arrayDelta`. */
export function applyArrayDelta<T extends NumberArray>(
  array: T,
  delta: ArrayDelta<T>,
  { after: items, kept }: Runs,
  width: number,
  expected?: (value: number) => number,
): T {
  const out = new (array.constructor as new (length: number) => T)(width * items);
  let [taken, next, count, change] = [0, 0, 0, 0];
  const put = (end: number) => {
    out.set(delta.fresh.subarray(taken, taken + width * (end - next)), width * next);
    taken += width * (end - next);
  };
  for (let r = 0; r < kept.length; r += 3) {
    put(kept[r + 1]);
    const [from, to, length] = [width * kept[r], width * kept[r + 1], width * kept[r + 2]];
    if (expected) for (let i = 0; i < length; i++) out[to + i] = expected(array[from + i]);
    else out.set(array.subarray(from, from + length), to);
    for (; change < delta.at.length && delta.at[change] < count + length; change++)
      out[to + delta.at[change] - count] = delta.after[change];
    count += length;
    next = kept[r + 1] + kept[r + 2];
  }
  put(items);
  return out;
}
