/** Points hashed into cubes, to find those near a place. */
export interface PointGrid {
  /** Calls back for every point no farther than the reach of the grid in each axis, and some beyond. */
  near(x: number, y: number, z: number, visit: (point: number) => void): void;
}

/**
 * @param positions  xyz of all points
 * @param points  those to hash
 * @param reach  greatest distance that will be asked for; more than 0
 */
export function pointGrid(positions: Float64Array, points: Iterable<number>, reach: number): PointGrid {
  const cells = new Map<string, number[]>();
  const cell = (x: number) => Math.floor(x / reach);
  for (const v of points) {
    const key = `${cell(positions[3 * v])} ${cell(positions[3 * v + 1])} ${cell(positions[3 * v + 2])}`;
    const list = cells.get(key);
    if (list) list.push(v);
    else cells.set(key, [v]);
  }
  return {
    near(x, y, z, visit) {
      const [i, j, k] = [cell(x), cell(y), cell(z)];
      for (let a = i - 1; a <= i + 1; a++) {
        for (let b = j - 1; b <= j + 1; b++) {
          for (let c = k - 1; c <= k + 1; c++) {
            for (const v of cells.get(`${a} ${b} ${c}`) ?? []) visit(v);
          }
        }
      }
    },
  };
}
