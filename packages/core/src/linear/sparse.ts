import { type Context, heedStop } from '../progress.ts';

/** Where the entries of a symmetric matrix may be: its lower triangle, column by column, rows ascending. */
export interface Pattern {
  readonly size: number;
  /** First entry of each column and one past the last: `size + 1`. */
  readonly columnStart: Uint32Array;
  /** Row of each entry, never less than its column. */
  readonly row: Uint32Array;
}

/**
 * Gathers a list of entries, in any order and with repeats, into a pattern.
 *
 * @param rows, columns  entries anywhere in the matrix; those above the diagonal are mirrored below it
 * @returns the pattern, with every diagonal entry present, and for each listed entry its place in the
 *          values; add each listed value there to assemble the matrix
 */
export function gatherPattern(
  size: number,
  rows: Uint32Array,
  columns: Uint32Array,
  signal?: Context['signal'],
): { pattern: Pattern; slot: Uint32Array } {
  const count = rows.length;
  const total = count + size;
  const low = new Uint32Array(total);
  const high = new Uint32Array(total);
  for (let i = 0; i < count; i++) {
    low[i] = Math.min(rows[i], columns[i]);
    high[i] = Math.max(rows[i], columns[i]);
  }
  for (let i = 0; i < size; i++) low[count + i] = high[count + i] = i;

  // Two counting sorts, by row then by column, leave each column's rows ascending.
  const byRow = sortedBy(high, size);
  heedStop(signal);
  const byColumn = sortedBy(low, size, byRow);
  const columnStart = new Uint32Array(size + 1);
  const row = new Uint32Array(total);
  const place = new Uint32Array(total);
  let entries = 0;
  let lastColumn = -1;
  for (const i of byColumn) {
    if (low[i] !== lastColumn || row[entries - 1] !== high[i]) {
      lastColumn = low[i];
      row[entries++] = high[i];
      columnStart[lastColumn + 1] = entries;
    }
    place[i] = entries - 1;
  }
  return {
    pattern: { size, columnStart, row: row.slice(0, entries) },
    slot: place.subarray(0, count),
  };
}

function sortedBy(keys: Uint32Array, bucketCount: number, order?: Uint32Array): Uint32Array {
  const next = new Uint32Array(bucketCount + 1);
  for (let i = 0; i < keys.length; i++) next[keys[i] + 1]++;
  for (let b = 0; b < bucketCount; b++) next[b + 1] += next[b];
  const sorted = new Uint32Array(keys.length);
  for (let k = 0; k < keys.length; k++) {
    const i = order ? order[k] : k;
    sorted[next[keys[i]]++] = i;
  }
  return sorted;
}

/** y = A x for a symmetric matrix given by its lower triangle. */
export function multiply(pattern: Pattern, values: Float64Array, x: Float64Array): Float64Array {
  const y = new Float64Array(pattern.size);
  for (let j = 0; j < pattern.size; j++) {
    for (let k = pattern.columnStart[j]; k < pattern.columnStart[j + 1]; k++) {
      const i = pattern.row[k];
      y[i] += values[k] * x[j];
      if (i !== j) y[j] += values[k] * x[i];
    }
  }
  return y;
}
