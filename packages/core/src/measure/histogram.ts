/** How often values lie where, in stretches of one width. */
export interface Histogram {
  readonly from: number;
  readonly to: number;
  /** Each a share of the whole; all 0 where there are no values. */
  readonly counts: readonly number[];
}

/**
 * Counts values; those beyond the ends count in the last bins.
 *
 * @param lists  values, in any number of lists
 */
export function histogram(
  lists: Iterable<ArrayLike<number>>,
  { from, to, bins = 24 }: { readonly from: number; readonly to: number; readonly bins?: number },
): Histogram {
  const counts = new Array<number>(bins).fill(0);
  const scale = bins / (to - from);
  let all = 0;
  for (const list of lists) {
    all += list.length;
    for (let i = 0; i < list.length; i++)
      counts[Math.max(0, Math.min(bins - 1, Math.floor((list[i] - from) * scale)))]++;
  }
  return { from, to, counts: counts.map((count) => count / (all || 1)) };
}
