/** Cells along a side of the tile. */
const CELLS = 512;

/** Where a box would best lie: its lower left corner. */
export type Corner = readonly [u: number, v: number];

/**
 * Free places in the unit tile for boxes, one after the other. What is taken is known by cells, a cell that a triangle only touches being
 * taken: a place that is found is free, but one that is just large enough may be missed.
 *
 * @param occupied  UV of the three corners of each triangle that lies there, `6 × triangleCount`
 * @param sizes  width and height of each box, tile units
 * @param gap  that stays free round each
 * @param wanted  the place each comes to lie nearest to; the lowest, then leftmost, when absent
 * @returns the lower left corner of each, undefined where there is no room
 */
export function freePlaces(
  occupied: Float64Array,
  sizes: readonly (readonly [width: number, height: number])[],
  gap: number,
  wanted?: readonly Corner[],
): (Corner | undefined)[] {
  const taken = cellsUnder(occupied);
  return sizes.map((size, i) => takePlace(taken, size, gap, wanted?.[i]));
}

/**
 * Free places for boxes that are all scaled alike: as large as they are, or else as large as they go.
 *
 * @param sizes  the largest first fills best
 * @returns undefined where they fit at no scale that is of use
 */
export function shrunkPlaces(
  occupied: Float64Array,
  sizes: readonly (readonly [width: number, height: number])[],
  gap: number,
): { readonly scale: number; readonly places: readonly Corner[] } | undefined {
  const cells = cellsUnder(occupied);
  const room = cells.reduce((sum, taken) => sum + 1 - taken, 0) / cells.length;
  const area = sizes.reduce((sum, [width, height]) => sum + width * height, 0);
  const start = Math.min(1, Math.sqrt(room / (area || 1)));
  for (let scale = start; scale > LEAST_SCALE * start; scale *= SHRINK) {
    const taken = cells.slice();
    const places: Corner[] = [];
    for (const [width, height] of sizes) {
      const place = takePlace(taken, [scale * width, scale * height], gap);
      if (!place) break;
      places.push(place);
    }
    if (places.length === sizes.length) return { scale, places };
  }
  return undefined;
}

/** Each try is so much smaller than the last, down to the least part. */
const [SHRINK, LEAST_SCALE] = [0.95, 0.05];

/** 1 for each cell of the tile that a triangle meets. */
function cellsUnder(triangles: Float64Array): Uint8Array {
  const taken = new Uint8Array(CELLS * CELLS);
  for (let t = 0; t < triangles.length; t += 6) markTriangle(taken, triangles, t);
  return taken;
}

/** Finds a free place and marks it as taken. */
function takePlace(
  taken: Uint8Array,
  size: readonly [width: number, height: number],
  gap: number,
  wanted?: Corner,
): Corner | undefined {
  const [w, h] = size.map((side) => Math.ceil((side + 2 * gap) * CELLS) + 1);
  const found = wanted
    ? nearestRectangle(taken, w, h, (wanted[0] - gap) * CELLS, (wanted[1] - gap) * CELLS)
    : freeRectangles(taken, w, h).next().value;
  if (!found) return undefined;
  const [column, row] = found;
  for (let r = row; r < row + h; r++) taken.fill(1, r * CELLS + column, r * CELLS + column + w);
  return [column / CELLS + gap, row / CELLS + gap];
}

/** The rectangle of free cells nearest to a place. */
function nearestRectangle(
  taken: Uint8Array,
  width: number,
  height: number,
  column: number,
  row: number,
): readonly [number, number] | undefined {
  let [nearest, best]: [number, readonly [number, number] | undefined] = [Infinity, undefined];
  for (const found of freeRectangles(taken, width, height)) {
    const far = (found[0] - column) ** 2 + (found[1] - row) ** 2;
    if (far < nearest) [nearest, best] = [far, found];
  }
  return best;
}

/** Marks every cell that a triangle meets, row by row. */
function markTriangle(taken: Uint8Array, uv: Float64Array, t: number): void {
  const low = Math.min(uv[t + 1], uv[t + 3], uv[t + 5]) * CELLS;
  const high = Math.max(uv[t + 1], uv[t + 3], uv[t + 5]) * CELLS;
  for (
    let row = Math.max(0, Math.floor(low)), end = Math.min(CELLS - 1, Math.floor(high));
    row <= end;
    row++
  ) {
    let [least, most] = [Infinity, -Infinity];
    for (let k = 0; k < 6; k += 2) {
      const [i, j] = [t + k, t + ((k + 2) % 6)];
      const [u0, v0, u1, v1] = [uv[i] * CELLS, uv[i + 1] * CELLS, uv[j] * CELLS, uv[j + 1] * CELLS];
      if (Math.max(v0, v1) < row || Math.min(v0, v1) > row + 1) continue;
      for (const v of [Math.max(row, Math.min(v0, v1)), Math.min(row + 1, Math.max(v0, v1))]) {
        const u = v0 === v1 ? u0 : u0 + ((v - v0) / (v1 - v0)) * (u1 - u0);
        least = Math.min(least, u, v0 === v1 ? u1 : u);
        most = Math.max(most, u, v0 === v1 ? u1 : u);
      }
    }
    const first = Math.max(0, Math.floor(least));
    const last = Math.min(CELLS - 1, Math.floor(most));
    if (first <= last) taken.fill(1, row * CELLS + first, row * CELLS + last + 1);
  }
}

/** Rectangles of free cells, the lowest first and of those the leftmost, by the free height over each cell of a row. */
function* freeRectangles(
  taken: Uint8Array,
  width: number,
  height: number,
): Generator<readonly [column: number, row: number]> {
  if (width > CELLS || height > CELLS) return;
  const free = new Uint16Array(CELLS);
  for (let top = 0; top < CELLS; top++) {
    let run = 0;
    for (let column = 0; column < CELLS; column++) {
      free[column] = taken[top * CELLS + column] ? 0 : free[column] + 1;
      run = free[column] >= height ? run + 1 : 0;
      if (run >= width) yield [column - width + 1, top - height + 1];
    }
  }
}
