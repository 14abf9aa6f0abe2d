/** Boxes that are compared one with another; more are parted by a grid. */
const FEW = 24;
/** Boxes to a cell that a grid aims at. */
const AIM = 2;
/** A grid is of no use where each box comes to lie in more than so many of its cells, on average. */
const MOST_CELLS = 6;
const DEEPEST = 12;

/**
 * Pairs of boxes whose insides meet, each once, by a grid whose crowded cells are grids again. A pair is told by the cell in which the
 * lower left corner lies of what the two share.
 *
 * @param boxes  `[minX, minY, maxX, maxY]` of each, `4 × count`
 * @param meet  called with two numbers of boxes; false ends the search
 */
export function meetingBoxes(boxes: Float64Array, meet: (a: number, b: number) => boolean): void {
  const items = Uint32Array.from({ length: boxes.length / 4 }, (_, i) => i);
  const whole: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < boxes.length; i += 4) {
    whole[0] = Math.min(whole[0], boxes[i]);
    whole[1] = Math.min(whole[1], boxes[i + 1]);
    whole[2] = Math.max(whole[2], boxes[i + 2]);
    whole[3] = Math.max(whole[3], boxes[i + 3]);
  }
  searchCell(boxes, items, whole, 0, meet);
}

type Cell = readonly [minX: number, minY: number, maxX: number, maxY: number];

/** @returns false once the search was ended */
function searchCell(
  boxes: Float64Array,
  items: Uint32Array,
  cell: Cell,
  depth: number,
  meet: (a: number, b: number) => boolean,
): boolean {
  const grid = items.length > FEW && depth < DEEPEST ? gridOf(boxes, items, cell) : undefined;
  if (!grid) return compareAll(boxes, items, cell, meet);
  const { columns, rows, start, sorted } = grid;
  for (let r = 0; r + 1 < rows.length; r++)
    for (let c = 0; c + 1 < columns.length; c++) {
      const k = r * (columns.length - 1) + c;
      if (start[k + 1] - start[k] < 2) continue;
      const own = sorted.subarray(start[k], start[k + 1]);
      if (!searchCell(boxes, own, [columns[c], rows[r], columns[c + 1], rows[r + 1]], depth + 1, meet))
        return false;
    }
  return true;
}

function compareAll(
  boxes: Float64Array,
  items: Uint32Array,
  [minX, minY, maxX, maxY]: Cell,
  meet: (a: number, b: number) => boolean,
): boolean {
  for (let p = 0; p < items.length; p++) {
    const a = 4 * items[p];
    for (let q = p + 1; q < items.length; q++) {
      const b = 4 * items[q];
      if (boxes[b] >= boxes[a + 2] || boxes[b + 2] <= boxes[a]) continue;
      if (boxes[b + 1] >= boxes[a + 3] || boxes[b + 3] <= boxes[a + 1]) continue;
      const x = Math.max(boxes[a], boxes[b]);
      const y = Math.max(boxes[a + 1], boxes[b + 1]);
      if (x < minX || x >= maxX || y < minY || y >= maxY) continue;
      if (!meet(items[p], items[q])) return false;
    }
  }
  return true;
}

interface Grid {
  /** Where its columns and rows begin, and the last of them ends. */
  readonly columns: Float64Array;
  readonly rows: Float64Array;
  /** Boxes of cell k: `sorted[start[k] … start[k + 1]]`. */
  readonly start: Uint32Array;
  readonly sorted: Uint32Array;
}

/** A grid over a cell; undefined where it would not part its boxes. */
function gridOf(boxes: Float64Array, items: Uint32Array, [minX, minY, maxX, maxY]: Cell): Grid | undefined {
  const [width, height] = [maxX - minX, maxY - minY];
  if (!(width > 0 && height > 0)) return undefined;
  // Cells are shaped as the boxes are.
  let [wide, high] = [0, 0];
  for (const i of items) {
    wide += Math.min(width, boxes[4 * i + 2] - boxes[4 * i]);
    high += Math.min(height, boxes[4 * i + 3] - boxes[4 * i + 1]);
  }
  const cells = items.length / AIM;
  const ratio = (width * (high || 1)) / (height * (wide || 1));
  const across = Math.max(1, Math.min(cells, Math.round(Math.sqrt(cells * ratio))));
  const columns = steps(minX, maxX, across);
  const rows = steps(minY, maxY, Math.max(1, Math.round(cells / across)));
  const count = columns.length - 1;
  const start = new Uint32Array(count * (rows.length - 1) + 1);
  const span = new Uint32Array(4 * items.length);
  for (let i = 0; i < items.length; i++) {
    const at = 4 * items[i];
    const s = 4 * i;
    span[s] = stepAt(columns, boxes[at]);
    span[s + 1] = stepAt(rows, boxes[at + 1]);
    span[s + 2] = stepAt(columns, boxes[at + 2]);
    span[s + 3] = stepAt(rows, boxes[at + 3]);
    for (let r = span[s + 1]; r <= span[s + 3]; r++)
      for (let c = span[s]; c <= span[s + 2]; c++) start[r * count + c + 1]++;
  }
  for (let k = 1; k < start.length; k++) start[k] += start[k - 1];
  if (start[start.length - 1] > MOST_CELLS * items.length) return undefined;
  const next = start.slice();
  const sorted = new Uint32Array(start[start.length - 1]);
  for (let i = 0; i < items.length; i++) {
    const s = 4 * i;
    for (let r = span[s + 1]; r <= span[s + 3]; r++)
      for (let c = span[s]; c <= span[s + 2]; c++) sorted[next[r * count + c]++] = items[i];
  }
  return { columns, rows, start, sorted };
}

/** Both ends of a range and what divides it evenly. */
function steps(from: number, to: number, count: number): Float64Array {
  const at = Float64Array.from({ length: count + 1 }, (_, i) => from + (i * (to - from)) / count);
  at[count] = to;
  return at;
}

/** The step that a place lies in: the bounds decide, not how the division was rounded. */
function stepAt(bounds: Float64Array, x: number): number {
  const last = bounds.length - 2;
  const [from, to] = [bounds[0], bounds[last + 1]];
  let i = Math.max(0, Math.min(last, Math.floor(((x - from) / (to - from)) * (last + 1))));
  while (i > 0 && x < bounds[i]) i--;
  while (i < last && x >= bounds[i + 1]) i++;
  return i;
}
