import { turnedBox } from './frame.ts';
import type { FieldShape } from './pieces.ts';

/** The cells of a piece as it is turned and scaled, from the cell in which its middle lies. */
export interface Mask {
  /** Cells that the piece meets, as runs along rows: row, first column, column past the last, `3 × count`. */
  readonly body: Int32Array;
  /** Cells that come nearer to it than the gap; from the middle row on up and down, where it is wide and blocks most. */
  readonly grown: Int32Array;
  /** How far the piece reaches from its middle with its gap, cells: whole columns and rows at which it stays inside a frame. */
  readonly left: number;
  readonly right: number;
  readonly low: number;
  readonly high: number;
  /** Half the height of the grown mask, rows. */
  readonly tall: number;
}

/** A cell that holds a point lies so near to it with its middle, cells; and what a distance field is off by. */
const NEAR = Math.SQRT1_2 + 0.1;

/** @param cell  side of a cell, in the unit in which the piece is laid */
export function maskOf(piece: FieldShape, angle: number, scale: number, gap: number, cell: number): Mask {
  const { field } = piece;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [left, low, right, high] = turnedBox(piece, angle).map((x) => scale * x);
  const reach = gap / cell + NEAR;
  const [firstColumn, lastColumn] = [Math.floor(left / cell - reach), Math.ceil(right / cell + reach)];
  const [firstRow, lastRow] = [Math.floor(low / cell - reach), Math.ceil(high / cell + reach)];
  const body: number[] = [];
  const grown: number[] = [];
  const inverse = 1 / scale;
  const bodyAt = NEAR * cell * inverse;
  const grownAt = (gap + NEAR * cell) * inverse;
  const { columns, rows, distance } = field;
  const perCell = 1 / field.cell;
  for (let row = firstRow; row <= lastRow; row++) {
    let [bodyFrom, grownFrom] = [NONE, NONE];
    for (let column = firstColumn; column <= lastColumn + 1; column++) {
      const [u, v] = [column * cell * inverse, row * cell * inverse];
      const x = (c * u + s * v - field.left) * perCell;
      const y = (c * v - s * u - field.low) * perCell;
      const [i, j] = [Math.floor(x), Math.floor(y)];
      let d = Infinity;
      if (i >= 0 && j >= 0 && i < columns - 1 && j < rows - 1) {
        const node = j * columns + i;
        const [p, q] = [x - i, y - j];
        d =
          (1 - q) * ((1 - p) * distance[node] + p * distance[node + 1]) +
          q * ((1 - p) * distance[node + columns] + p * distance[node + columns + 1]);
      }
      if (d <= grownAt) {
        if (grownFrom === NONE) grownFrom = column;
      } else if (grownFrom !== NONE) {
        grown.push(row, grownFrom, column);
        grownFrom = NONE;
      }
      if (d <= bodyAt) {
        if (bodyFrom === NONE) bodyFrom = column;
      } else if (bodyFrom !== NONE) {
        body.push(row, bodyFrom, column);
        bodyFrom = NONE;
      }
    }
  }
  return {
    body: Int32Array.from(body),
    grown: middleFirst(grown),
    left: Math.ceil((gap - left) / cell - 0.5),
    right: Math.ceil((gap + right) / cell - 0.5),
    low: Math.ceil((gap - low) / cell - 0.5),
    high: high / cell,
    tall: Math.ceil((lastRow - firstRow) / 2),
  };
}

const NONE = -(2 ** 30);

/** Runs from the middle one on, by turns up and down. */
function middleFirst(runs: readonly number[]): Int32Array {
  const count = runs.length / 3;
  const ordered = new Int32Array(runs.length);
  for (let k = 0, i = count >> 1; k < count; k++, i += k % 2 === 1 ? -k : k)
    for (let e = 0; e < 3; e++) ordered[3 * k + e] = runs[3 * i + e];
  return ordered;
}

export interface Raster {
  /** Marks the cells of a mask whose middle lies in a cell. */
  take(mask: Mask, column: number, row: number): void;
  /** The lowest, then leftmost cell for the middle of a mask at which it meets nothing, in rows from one on and below another. */
  lowest(mask: Mask, from: number, below: number): readonly [column: number, row: number] | undefined;
}

/**
 * Bits of 32 cells a word, read for all columns of a row at once.
 *
 * @param widest  no mask is wider, cells
 */
export function emptyRaster(columns: number, rows: number, widest: number): Raster {
  const pad = Math.ceil(Math.min(widest, 2 * columns) / 32) + 2;
  const words = Math.ceil(columns / 32);
  const stride = words + 2 * pad;
  /** Level k: whether any of 2ᵏ cells from this one on is taken. */
  const levels: Uint32Array[] = [new Uint32Array(stride * rows)];
  for (let size = 2; size <= Math.min(widest, columns); size *= 2)
    levels.push(new Uint32Array(stride * rows));
  const blocked = new Uint32Array(words);

  function take({ body }: Mask, column: number, row: number): void {
    const [bits] = levels;
    let [last, least, most] = [-1, columns, 0];
    for (let i = 0; i < body.length; i += 3) {
      const r = row + body[i];
      if (r < 0 || r >= rows) continue;
      const from = Math.max(0, column + body[i + 1]);
      const to = Math.min(columns, column + body[i + 2]);
      if (r !== last) {
        if (last >= 0) spread(last, least, most);
        [last, least, most] = [r, from, to];
      }
      least = Math.min(least, from);
      most = Math.max(most, to);
      for (let k = from; k < to; k++) bits[r * stride + pad + (k >>> 5)] |= 1 << (k & 31);
    }
    if (last >= 0) spread(last, least, most);
  }

  /** Brings the higher levels of a row up to date, of which some columns were marked. */
  function spread(r: number, from: number, to: number): void {
    const begin = r * stride;
    for (let level = 1; level < levels.length; level++) {
      const [lower, upper] = [levels[level - 1], levels[level]];
      const off = 1 << (level - 1);
      const [q, b] = [off >> 5, off & 31];
      const first = Math.max(begin, begin + pad + ((from - 2 * off) >> 5));
      const end = Math.min(begin + stride - q - 1, begin + pad + (to >> 5) + 1);
      for (let w = first; w < end; w++) {
        const far = b === 0 ? lower[w + q] : (lower[w + q] >>> b) | (lower[w + q + 1] << (32 - b));
        upper[w] = lower[w] | far;
      }
    }
  }

  /** Blocks every column from which a cell so far on is marked. */
  function block(bits: Uint32Array, row: number, off: number): void {
    const q = off >> 5;
    const b = off & 31;
    const base = row * stride + pad + q;
    if (b === 0) for (let w = 0; w < words; w++) blocked[w] |= bits[base + w];
    else
      for (let w = 0; w < words; w++) blocked[w] |= (bits[base + w] >>> b) | (bits[base + w + 1] << (32 - b));
  }

  function lowest(
    { grown, left, right, low, tall }: Mask,
    from: number,
    below: number,
  ): readonly [number, number] | undefined {
    const [least, most] = [left, columns - 1 - right];
    if (least > most) return undefined;
    const end = Math.min(below, rows - tall - 1);
    for (let row = Math.max(low, from); row < end; row++) {
      blocked.fill(0);
      // Columns at which it leaves the frame.
      for (let k = 0; k < least; k++) blocked[k >>> 5] |= 1 << (k & 31);
      for (let k = most + 1; k < 32 * words; k++) blocked[k >>> 5] |= 1 << (k & 31);
      let isFull = false;
      for (let i = 0; i < grown.length && !isFull; i += 3) {
        const r = row + grown[i];
        if (r < 0 || r >= rows) continue;
        const length = grown[i + 2] - grown[i + 1];
        const level = Math.min(levels.length - 1, 31 - Math.clz32(length));
        block(levels[level], r, grown[i + 1]);
        if (length > 1 << level) block(levels[level], r, grown[i + 2] - (1 << level));
        if (i % 12 === 9) {
          isFull = true;
          for (let w = 0; w < words && isFull; w++) if (blocked[w] !== 0xffffffff) isFull = false;
        }
      }
      if (isFull) continue;
      for (let w = 0; w < words; w++)
        if (blocked[w] !== 0xffffffff) {
          const open = ~blocked[w];
          return [32 * w + (31 - Math.clz32(open & -open)), row];
        }
    }
    return undefined;
  }

  return { take, lowest };
}
