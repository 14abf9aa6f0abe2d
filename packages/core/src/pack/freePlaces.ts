import type { FlatShell } from '../surface/flatShell.ts';
import { aspectOf, frameOf, gapOf, type Tile } from '../surface/tiles.ts';
import { boxOf } from '../surface/uvBox.ts';
import { nudgeClear } from './nudgeClear.ts';

/** Cells in the height of a tile. */
const CELLS = 512;

/** Where a shell lies: the lower left corner of its box. */
export type Corner = readonly [u: number, v: number];

/**
 * Free places in tiles for shells, one after the other, as they are turned: in the nearest tile that has room. What is taken, and what a shell covers, is known by cells, a
 * cell that a triangle only touches being taken: a place that is found is free. What fits nowhere so is tried with less of the gap, and nudged clear.
 *
 * @param occupied  UV of the three corners of each triangle that lies there, `6 × triangleCount`
 * @param from  where each lies now: the tile nearest to that comes first
 * @param which  of the free places of that tile the one nearest to where it lies, or the lowest, then leftmost
 * @returns the place of each, undefined where there is no room
 */
export function freePlaces(
  occupied: FlatShell,
  shells: readonly FlatShell[],
  tiles: readonly Tile[],
  from: readonly Corner[],
  which: 'nearest' | 'lowest',
): (Corner | undefined)[] {
  const grids = tiles.map((tile) => gridOf(tile, occupied));
  const laid = [occupied];
  return shells.map((shell, i) => {
    const order = grids.toSorted((a, b) => farFrom(a.tile, from[i]) - farFrom(b.tile, from[i]));
    const wanted = which === 'nearest' ? from[i] : undefined;
    const place = takeFirst(order, shell, 1, wanted) ?? squeezeIn(order, shell, laid, wanted);
    if (place) laid.push(movedTo(shell, place));
    return place;
  });
}

/**
 * Free places for shells that are all scaled alike: as large as they are, or else as large as they go.
 *
 * @param shells  the largest first fills best
 * @returns undefined where they fit at no scale that is of use
 */
export function shrunkPlaces(
  occupied: FlatShell,
  shells: readonly FlatShell[],
  tiles: readonly Tile[],
): { readonly scale: number; readonly places: readonly Corner[] } | undefined {
  const room = tiles.length * aspectOf(tiles) - areaOf(occupied);
  const grids = tiles.map((tile) => gridOf(tile, occupied));
  const area = shells.reduce((sum, shell) => sum + areaOf(shell), 0);
  const start = Math.min(1, Math.sqrt(Math.max(room, 0.01) / (area || 1)));
  for (let scale = start; scale > LEAST_SCALE * start; scale *= SHRINK) {
    const left = grids.map(copyOf);
    const places: Corner[] = [];
    for (const shell of shells) {
      const place = takeFirst(left, shell, scale);
      if (!place) break;
      places.push(place);
    }
    if (places.length === shells.length) return { scale, places };
  }
  return undefined;
}

/** Each try is so much smaller than the last, down to the least part. */
const [SHRINK, LEAST_SCALE] = [0.95, 0.05];

const areaOf = (flat: FlatShell): number => {
  let area = 0;
  for (let i = 0; i < flat.length; i += 6)
    area += Math.abs(
      (flat[i + 2] - flat[i]) * (flat[i + 5] - flat[i + 1]) -
        (flat[i + 3] - flat[i + 1]) * (flat[i + 4] - flat[i]),
    );
  return area / 2;
};

/** Cells of a tile: how many up to each column of a row are taken, `columns + 1` a row, and which. */
interface Grid {
  readonly tile: Tile;
  readonly columns: number;
  readonly taken: Uint8Array;
  readonly before: Uint32Array;
}

/** A tile with what lies there. */
function gridOf(tile: Tile, occupied: FlatShell): Grid {
  const columns = Math.floor(CELLS * aspectOf([tile]));
  const taken = new Uint8Array(CELLS * columns);
  const grid = { tile, columns, taken, before: new Uint32Array(CELLS * (columns + 1)) };
  const [left, low] = frameOf(tile);
  take(grid, runsOf(occupied, left, low, 1, 0));
  return grid;
}

const copyOf = ({ taken, before, ...grid }: Grid): Grid => ({
  ...grid,
  taken: taken.slice(),
  before: before.slice(),
});

/** Finds a free place in the first of tiles that has one, and marks it as taken. */
function takeFirst(
  grids: readonly Grid[],
  shell: FlatShell,
  scale: number,
  wanted?: Corner,
): Corner | undefined {
  for (const grid of grids) {
    const place = takePlace(grid, shell, scale, wanted);
    if (place) return place;
  }
  return undefined;
}

/** By how many cells a raster sees two shells nearer than they are. */
const COARSE = 2;

/** Finds a place that the raster holds for too narrow by little, nudges the shell clear there, and marks it as taken. */
function squeezeIn(
  grids: readonly Grid[],
  shell: FlatShell,
  laid: readonly FlatShell[],
  wanted?: Corner,
): Corner | undefined {
  for (const grid of grids) {
    const gap = gapOf(grid.tile);
    const [place, runs] = placeWith(grid, shell, 1, Math.max(0, gap * CELLS - COARSE), wanted);
    if (!place) continue;
    const [left, low] = frameOf(grid.tile);
    const corner = [left + place[0] / CELLS, low + place[1] / CELLS] as const;
    const nudge = nudgeClear(movedTo(shell, corner), joinFlats(laid), gap, frameOf(grid.tile));
    if (!nudge) continue;
    take(grid, runs, ...place);
    return [corner[0] + nudge[0], corner[1] + nudge[1]];
  }
  return undefined;
}

/** Triangles of several shells as one list. */
export function joinFlats(flats: readonly FlatShell[]): FlatShell {
  const all = new Float64Array(flats.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const flat of flats) {
    all.set(flat, at);
    at += flat.length;
  }
  return all;
}

/** A shell with the lower left corner of its box at a place. */
function movedTo(shell: FlatShell, [u, v]: Corner): FlatShell {
  const [minU, minV] = boxOf(shell);
  return shell.map((x, i) => x + (i % 2 === 0 ? u - minU : v - minV));
}

/** How far a place is from a tile; 0 inside. */
function farFrom(tile: Tile, [u, v]: Corner): number {
  const [left, low, right, high] = frameOf(tile);
  return Math.hypot(Math.max(left - u, 0, u - right), Math.max(low - v, 0, v - high));
}

/** Cells that a shape covers, as runs along rows, three numbers a run: row, first column, column past the last. */
type Runs = Int32Array;

/**
 * Cells that triangles meet.
 *
 * @param originU  that becomes column 0
 * @param gap  round about them, cells
 */
function runsOf(flat: FlatShell, originU: number, originV: number, scale: number, gap: number): Runs {
  const rows = new Map<number, [from: number, to: number][]>();
  const moved = new Float64Array(6);
  for (let t = 0; t < flat.length; t += 6) {
    for (let k = 0; k < 6; k += 2) {
      moved[k] = scale * (flat[t + k] - originU) * CELLS;
      moved[k + 1] = scale * (flat[t + k + 1] - originV) * CELLS;
    }
    eachRow(moved, gap, (row, from, to) => {
      const runs = rows.get(row);
      if (runs) runs.push([from, to]);
      else rows.set(row, [[from, to]]);
    });
  }
  const joined: number[] = [];
  for (const [row, runs] of rows) {
    runs.sort(([a], [b]) => a - b);
    let [from, to] = runs[0];
    for (const [start, end] of runs) {
      if (start > to) {
        joined.push(row, from, to);
        [from, to] = [start, end];
      } else to = Math.max(to, end);
    }
    joined.push(row, from, to);
  }
  return Int32Array.from(joined);
}

/** Rows of cells that a triangle meets, grown by a gap, each with the columns from and past the last. */
function eachRow(
  triangle: Float64Array,
  gap: number,
  found: (row: number, from: number, to: number) => void,
): void {
  const low = Math.min(triangle[1], triangle[3], triangle[5]) - gap;
  const high = Math.max(triangle[1], triangle[3], triangle[5]) + gap;
  if (!Number.isFinite(low + high)) return;
  for (let row = Math.floor(low); row <= Math.ceil(high) - 1 || row === Math.floor(low); row++) {
    let [least, most] = [Infinity, -Infinity];
    for (let k = 0; k < 6; k += 2) {
      const j = (k + 2) % 6;
      const [u0, v0, u1, v1] = [triangle[k], triangle[k + 1], triangle[j], triangle[j + 1]];
      const [from, to] = [Math.max(row - gap, Math.min(v0, v1)), Math.min(row + 1 + gap, Math.max(v0, v1))];
      if (from > to) continue;
      for (const v of [from, to]) {
        const u = v0 === v1 ? u0 : u0 + ((v - v0) / (v1 - v0)) * (u1 - u0);
        least = Math.min(least, u, v0 === v1 ? u1 : u);
        most = Math.max(most, u, v0 === v1 ? u1 : u);
      }
    }
    if (least <= most)
      found(row, Math.floor(least - gap), Math.max(Math.floor(least - gap) + 1, Math.ceil(most + gap)));
  }
}

/** Marks runs as taken; what lies outside the tile takes nothing. */
function take({ taken, before, columns }: Grid, runs: Runs, column = 0, row = 0): void {
  const rows = new Set<number>();
  for (let i = 0; i < runs.length; i += 3) {
    const r = runs[i] + row;
    if (r < 0 || r >= CELLS) continue;
    const [from, to] = [Math.max(0, runs[i + 1] + column), Math.min(columns, runs[i + 2] + column)];
    if (from < to) taken.fill(1, r * columns + from, r * columns + to);
    rows.add(r);
  }
  for (const r of rows) {
    let sum = 0;
    for (let c = 0; c < columns; c++) {
      sum += taken[r * columns + c];
      before[r * (columns + 1) + c + 1] = sum;
    }
  }
}

/** Finds a free place for a shell and marks it as taken. */
function takePlace(grid: Grid, shell: FlatShell, scale: number, wanted?: Corner): Corner | undefined {
  const [left, low] = frameOf(grid.tile);
  const [place, runs] = placeWith(grid, shell, scale, gapOf(grid.tile) * CELLS, wanted);
  if (!place) return undefined;
  take(grid, runs, ...place);
  return [left + place[0] / CELLS, low + place[1] / CELLS];
}

/** @param gap  cells */
function placeWith(grid: Grid, shell: FlatShell, scale: number, gap: number, wanted?: Corner) {
  const [left, low] = frameOf(grid.tile);
  const [minU, minV] = boxOf(shell);
  const runs = runsOf(shell, minU, minV, scale, gap);
  const place = placeFor(grid, runs, wanted && [(wanted[0] - left) * CELLS, (wanted[1] - low) * CELLS]);
  return [place, runs] as const;
}

/** The column and row by which runs are moved to free cells: the lowest and then leftmost, or those nearest to what is wanted. */
function placeFor(
  { before, columns }: Grid,
  runs: Runs,
  wanted?: Corner,
): readonly [number, number] | undefined {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < runs.length; i += 3) {
    low = Math.min(low, runs[i]);
    high = Math.max(high, runs[i]);
    left = Math.min(left, runs[i + 1]);
    right = Math.max(right, runs[i + 2]);
  }
  let [nearest, best]: [number, readonly [number, number] | undefined] = [Infinity, undefined];
  // The run that was in the way last is likely to be so again.
  let last = 0;
  for (let row = -low; row + high < CELLS; row++)
    for (let column = -left; column + right <= columns; column++) {
      const far = wanted ? (column - wanted[0]) ** 2 + (row - wanted[1]) ** 2 : 0;
      if (far >= nearest) continue;
      if (!isFree(last)) {
        column = past(last) - 1;
        continue;
      }
      let i = 0;
      while (i < runs.length && isFree(i)) i += 3;
      if (i < runs.length) {
        last = i;
        column = past(i) - 1;
        continue;
      }
      if (!wanted) return [column, row];
      [nearest, best] = [far, [column, row]];

      function isFree(i: number): boolean {
        const at = (runs[i] + row) * (columns + 1) + column;
        return before[at + runs[i + 2]] === before[at + runs[i + 1]];
      }
      /** The next column at which a run clears the cells that are in its way. */
      function past(i: number): number {
        const at = (runs[i] + row) * (columns + 1) + column;
        const all = before[at + runs[i + 2]];
        let end = runs[i + 2];
        while (before[at + end - 1] === all) end--;
        return column + end - runs[i + 1];
      }
    }
  return best;
}
