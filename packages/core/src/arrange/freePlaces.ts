/** Cells along a side of the tile. */
const CELLS = 512;

/**
 * Free places in the unit tile for boxes, one after the other, the lowest first. What is taken is known by cells, a cell that a triangle only touches being
 * taken: a place that is found is free, but one that is just large enough may be missed.
 *
 * @param occupied  UV of the three corners of each triangle that lies there, `6 × triangleCount`
 * @param sizes  width and height of each box, tile units
 * @param gap  that stays free round each
 * @returns the lower left corner of each, undefined where there is no room
 */
export function freePlaces(
  occupied: Float64Array,
  sizes: readonly (readonly [width: number, height: number])[],
  gap: number,
): (readonly [u: number, v: number] | undefined)[] {
  const taken = new Uint8Array(CELLS * CELLS);
  for (let t = 0; t < occupied.length; t += 6) markTriangle(taken, occupied, t);
  return sizes.map(([width, height]) => {
    const [w, h] = [width, height].map((side) => Math.ceil((side + 2 * gap) * CELLS) + 1);
    const found = freeRectangle(taken, w, h);
    if (!found) return undefined;
    const [column, row] = found;
    for (let r = row; r < row + h; r++) taken.fill(1, r * CELLS + column, r * CELLS + column + w);
    return [column / CELLS + gap, row / CELLS + gap];
  });
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

/** The lowest, leftmost rectangle of free cells, by the free height over each cell of a row. */
function freeRectangle(taken: Uint8Array, width: number, height: number): [number, number] | undefined {
  if (width > CELLS || height > CELLS) return undefined;
  const free = new Uint16Array(CELLS);
  for (let top = 0; top < CELLS; top++) {
    let run = 0;
    for (let column = 0; column < CELLS; column++) {
      free[column] = taken[top * CELLS + column] ? 0 : free[column] + 1;
      run = free[column] >= height ? run + 1 : 0;
      if (run === width) return [column - width + 1, top - height + 1];
    }
  }
  return undefined;
}
