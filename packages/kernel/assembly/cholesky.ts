// Supernodal multifrontal Cholesky factorisation (Duff and Reid 1983; Liu 1992), compiled to WebAssembly.
//
// Matrices are kept in 4 × 4 tiles: strip I holds rows 4I … 4I + 3, and within a strip each column's four values
// lie together, so every inner loop runs through memory in order. The panel of a supernode has `pivots` columns
// (a multiple of 4, padded with the identity); its update block is the lower triangle of tiles, row by row.
// Nothing is checked here: sizes and places come from `symbolic.ts`.
//
// `N` is what the entries are: `f64`, or `v128` for complex numbers, of which a column has the four real parts and
// then the four imaginary ones (see `hermitian.ts`).
import {
  backwardHermitian, factorHermitianTile, forwardHermitian, solveHermitianTile, subtractHermitianProduct,
} from "./hermitian";
import { stopped } from "./memory";
import { F64, loadPivots, minusProduct, storePivots, word } from "./panels";

const TILE: usize = 16 * F64;
const COLUMN: usize = 4 * F64;

@inline function tileSize<N>(): usize {
  return 16 * sizeof<N>();
}
@inline function columnSize<N>(): usize {
  return 4 * sizeof<N>();
}

@inline function triangle(strip: usize): usize {
  return (strip * (strip + 1)) >> 1;
}

/** C −= A Bᵀ over `depth` columns of strips A and B, C one tile. */
function subtractProduct(c: usize, a: usize, b: usize, depth: i32): void {
  let c00 = v128.load(c);
  let c01 = v128.load(c, 16);
  let c10 = v128.load(c, 32);
  let c11 = v128.load(c, 48);
  let c20 = v128.load(c, 64);
  let c21 = v128.load(c, 80);
  let c30 = v128.load(c, 96);
  let c31 = v128.load(c, 112);
  const end = a + <usize>depth * COLUMN;
  while (a < end) {
    const low = v128.load(a);
    const high = v128.load(a, 16);
    let s = v128.load_splat<f64>(b);
    c00 = minusProduct(c00, low, s);
    c01 = minusProduct(c01, high, s);
    s = v128.load_splat<f64>(b, 8);
    c10 = minusProduct(c10, low, s);
    c11 = minusProduct(c11, high, s);
    s = v128.load_splat<f64>(b, 16);
    c20 = minusProduct(c20, low, s);
    c21 = minusProduct(c21, high, s);
    s = v128.load_splat<f64>(b, 24);
    c30 = minusProduct(c30, low, s);
    c31 = minusProduct(c31, high, s);
    a += COLUMN;
    b += COLUMN;
  }
  v128.store(c, c00);
  v128.store(c, c01, 16);
  v128.store(c, c10, 32);
  v128.store(c, c11, 48);
  v128.store(c, c20, 64);
  v128.store(c, c21, 80);
  v128.store(c, c30, 96);
  v128.store(c, c31, 112);
}

/** Cholesky factor of one tile, in its lower half; false when a pivot is not positive. */
function factorTile(t: usize): bool {
  for (let j: usize = 0; j < 4; j++) {
    const column = t + j * COLUMN;
    const pivot = load<f64>(column + j * F64);
    if (!(pivot > 0)) return false;
    const root = Math.sqrt(pivot);
    store<f64>(column + j * F64, root);
    for (let i = j + 1; i < 4; i++) store<f64>(column + i * F64, load<f64>(column + i * F64) / root);
    for (let k = j + 1; k < 4; k++) {
      const factor = load<f64>(column + k * F64);
      for (let i = k; i < 4; i++) {
        const at = t + k * COLUMN + i * F64;
        store<f64>(at, load<f64>(at) - load<f64>(column + i * F64) * factor);
      }
    }
  }
  return true;
}

/** X L = T for one tile T below the factored tile L; X takes T's place. */
function solveTile(t: usize, l: usize): void {
  for (let j: usize = 0; j < 4; j++) {
    const column = t + j * COLUMN;
    let low = v128.load(column);
    let high = v128.load(column, 16);
    for (let k: usize = 0; k < j; k++) {
      const s = v128.load_splat<f64>(l + k * COLUMN + j * F64);
      low = minusProduct(low, v128.load(t + k * COLUMN), s);
      high = minusProduct(high, v128.load(t + k * COLUMN, 16), s);
    }
    const s = v128.load_splat<f64>(l + j * COLUMN + j * F64);
    v128.store(column, f64x2.div(low, s));
    v128.store(column, f64x2.div(high, s), 16);
  }
}

const DONE = 0;
const NOT_POSITIVE = 1;
const STOPPED = 2;
/** Tiles times depth between two questions whether to stop: some ten milliseconds of work. */
const PATIENCE: usize = 1 << 20;
/** The same for solving, in numbers of the factor. */
const SOLVE_PATIENCE: usize = 1 << 21;

@inline function subtract<N>(c: usize, a: usize, b: usize, depth: i32): void {
  if (isVector<N>()) subtractHermitianProduct(c, a, b, depth);
  else subtractProduct(c, a, b, depth);
}
@inline function factorOne<N>(tile: usize): bool {
  return isVector<N>() ? factorHermitianTile(tile) : factorTile(tile);
}
@inline function solveOne<N>(tile: usize, diagonal: usize): void {
  if (isVector<N>()) solveHermitianTile(tile, diagonal);
  else solveTile(tile, diagonal);
}

/** Factors the pivot columns of a panel and subtracts what they leave from the update block. */
function factorFront<N>(panel: usize, update: usize, pivots: i32, rows: i32): i32 {
  let work: usize = 0;
  const pivotStrips = <usize>(pivots >> 2);
  const strips = pivotStrips + <usize>((rows + 3) >> 2);
  const stripSize = <usize>pivots * columnSize<N>();
  for (let j: usize = 0; j < pivotStrips; j++) {
    const diagonal = panel + j * stripSize + j * tileSize<N>();
    const before = <i32>(j << 2);
    subtract<N>(diagonal, panel + j * stripSize, panel + j * stripSize, before);
    if (!factorOne<N>(diagonal)) return NOT_POSITIVE;
    work += (strips - j) * (j + 1) << 2;
    if (work > PATIENCE) {
      work = 0;
      if (stopped()) return STOPPED;
    }
    for (let i = j + 1; i < strips; i++) {
      const tile = panel + i * stripSize + j * tileSize<N>();
      subtract<N>(tile, panel + i * stripSize, panel + j * stripSize, before);
      solveOne<N>(tile, diagonal);
    }
  }
  const below = panel + pivotStrips * stripSize;
  for (let i: usize = 0; i < strips - pivotStrips; i++) {
    work += (i + 1) * <usize>pivots;
    if (work > PATIENCE) {
      work = 0;
      if (stopped()) return STOPPED;
    }
    for (let j: usize = 0; j <= i; j++) {
      subtract<N>(update + (triangle(i) + j) * tileSize<N>(), below + i * stripSize, below + j * stripSize, pivots);
    }
  }
  return DONE;
}

@inline function addNumber<N>(to: usize, from: usize): void {
  store<f64>(to, load<f64>(to) + load<f64>(from));
  if (isVector<N>()) store<f64>(to, load<f64>(to, COLUMN) + load<f64>(from, COLUMN), COLUMN);
}

/** Adds a child's update block into its parent's panel and update block. `places`: its rows in the parent's front. */
function extendAdd<N>(child: usize, rows: i32, places: usize, panel: usize, update: usize, pivots: i32): void {
  let inPivots = 0;
  while (inPivots < rows && load<i32>(places + (<usize>inPivots << 2)) < pivots) inPivots++;
  const stripSize = <usize>pivots * columnSize<N>();
  for (let i = 0; i < rows; i++) {
    const from = child + triangle(<usize>i >> 2) * tileSize<N>() + (<usize>i & 3) * F64;
    const place = <usize>load<i32>(places + (<usize>i << 2));
    const row = panel + (place >> 2) * stripSize + (place & 3) * F64;
    const last = i + 1 < inPivots ? i + 1 : inPivots;
    let j = 0;
    for (; j < last; j++) {
      addNumber<N>(row + <usize>load<i32>(places + (<usize>j << 2)) * columnSize<N>(), from + <usize>j * columnSize<N>());
    }
    if (i < inPivots) continue;
    const below = place - <usize>pivots;
    const updateRow = update + triangle(below >> 2) * tileSize<N>() + (below & 3) * F64;
    for (; j <= i; j++) {
      const column = <usize>load<i32>(places + (<usize>j << 2)) - <usize>pivots;
      addNumber<N>(updateRow + column * columnSize<N>(), from + <usize>j * columnSize<N>());
    }
  }
}

/**
 * Factors the whole matrix, its entries already in the panels.
 *
 * @param table  words of the supernodes, children before parents
 * @param places  rows of each update block in the parent's front
 * @param panels  all panels
 * @param stack  room for the update blocks
 * @param offsets  room for one word a supernode
 * @returns −1; −2 when stopped; or the supernode with a pivot that is not positive
 */
function factorAll<N>(count: i32, table: usize, places: usize, panels: usize, stack: usize, offsets: usize): i32 {
  let top: usize = 0; // in bytes, of the update blocks that wait for their parents
  let waiting: usize = 0;
  for (let s = 0; s < count; s++) {
    if ((s & 63) == 0 && stopped()) return -2;
    const pivots = word(table, s, 0);
    const rows = word(table, s, 1);
    const panel = panels + <usize>word(table, s, 2) * F64;
    const size = triangle(<usize>((rows + 3) >> 2)) * tileSize<N>();
    const update = stack + top;
    memory.fill(update, 0, size);
    const children = <usize>word(table, s, 4);
    for (let c = waiting - children; c < waiting; c++) {
      const child = load<i32>(offsets + (c << 3));
      const from = stack + <usize>load<i32>(offsets + (c << 3), 4) * TILE;
      extendAdd<N>(from, word(table, child, 1), places + (<usize>word(table, child, 3) << 2), panel, update, pivots);
    }
    const ended = factorFront<N>(panel, update, pivots, rows);
    if (ended != DONE) return ended == STOPPED ? -2 : s;
    // The children's blocks are done with: this one moves down into their place.
    waiting -= children;
    const base = children > 0 ? <usize>load<i32>(offsets + (waiting << 3), 4) * TILE : top;
    if (base != top) memory.copy(stack + base, update, size);
    store<i32>(offsets + (waiting << 3), s);
    store<i32>(offsets + (waiting << 3), <i32>(base / TILE), 4);
    waiting++;
    top = base + size;
  }
  return -1;
}

export function factor(count: i32, table: usize, places: usize, panels: usize, stack: usize, offsets: usize): i32 {
  return factorAll<f64>(count, table, places, panels, stack, offsets);
}
export function factorHermitian(
  count: i32, table: usize, places: usize, panels: usize, stack: usize, offsets: usize,
): i32 {
  return factorAll<v128>(count, table, places, panels, stack, offsets);
}

/**
 * Solves L Lᵀ x = b in place, for several right-hand sides at once; with complex numbers L Lᴴ x = b.
 *
 * @param rows  row numbers of each update block
 * @param x  right-hand sides and answers one after the other, `size` numbers each, in the order of elimination
 * @param work  room for the longest front
 * @returns whether it was done; otherwise it was stopped
 */
function solveAll<N>(
  count: i32, table: usize, rows: usize, panels: usize, x: usize, size: i32, sides: i32, work: usize,
): bool {
  const next = <usize>size * sizeof<N>();
  const end = x + next * <usize>sides;
  let gone: usize = 0;
  for (let s = 0; s < count; s++) {
    gone += panelSize(s, table);
    if (gone > SOLVE_PATIENCE) {
      gone = 0;
      if (stopped()) return false;
    }
    for (let b = x; b < end; b += next) {
      if (isVector<N>()) forwardHermitian(s, table, rows, panels, b, work);
      else forward(s, table, rows, panels, b, work);
    }
  }
  for (let s = count - 1; s >= 0; s--) {
    gone += panelSize(s, table);
    if (gone > SOLVE_PATIENCE) {
      gone = 0;
      if (stopped()) return false;
    }
    for (let b = x; b < end; b += next) {
      if (isVector<N>()) backwardHermitian(s, table, rows, panels, b, work);
      else backward(s, table, rows, panels, b, work);
    }
  }
  return true;
}

export function solve(
  count: i32, table: usize, rows: usize, panels: usize, x: usize, size: i32, sides: i32, work: usize,
): bool {
  return solveAll<f64>(count, table, rows, panels, x, size, sides, work);
}
export function solveHermitian(
  count: i32, table: usize, rows: usize, panels: usize, x: usize, size: i32, sides: i32, work: usize,
): bool {
  return solveAll<v128>(count, table, rows, panels, x, size, sides, work);
}

@inline function panelSize(s: i32, table: usize): usize {
  return <usize>(word(table, s, 0) * (word(table, s, 0) + word(table, s, 1)));
}

function forward(s: i32, table: usize, rows: usize, panels: usize, x: usize, work: usize): void {
  const pivots = word(table, s, 0);
  const below = word(table, s, 1);
  const panel = panels + <usize>word(table, s, 2) * F64;
  const list = rows + (<usize>word(table, s, 3) << 2);
  const stripSize = <usize>pivots * COLUMN;
  const pivotStrips = pivots >> 2;
  const strips = pivotStrips + ((below + 3) >> 2);
  loadPivots(s, table, x, work, F64);
  for (let i = 0; i < strips; i++) {
    const strip = panel + <usize>i * stripSize;
    const depth = i < pivotStrips ? i << 2 : pivots;
    let low = f64x2.splat(0);
    let high = f64x2.splat(0);
    for (let k = 0; k < depth; k++) {
      const value = v128.load_splat<f64>(work + (<usize>k << 3));
      low = f64x2.add(low, f64x2.mul(v128.load(strip + <usize>k * COLUMN), value));
      high = f64x2.add(high, f64x2.mul(v128.load(strip + <usize>k * COLUMN, 16), value));
    }
    const sums = work + (<usize>(pivots + (i << 2)) << 3);
    v128.store(sums, low);
    v128.store(sums, high, 16);
    if (i < pivotStrips) {
      const tile = strip + <usize>depth * COLUMN;
      for (let r = 0; r < 4; r++) {
        const at = work + (<usize>(depth + r) << 3);
        let value = load<f64>(at) - load<f64>(sums + (<usize>r << 3));
        for (let k = 0; k < r; k++) {
          value -= load<f64>(tile + <usize>k * COLUMN + <usize>r * F64) * load<f64>(work + (<usize>(depth + k) << 3));
        }
        store<f64>(at, value / load<f64>(tile + <usize>r * COLUMN + <usize>r * F64));
      }
    } else {
      const first = (i - pivotStrips) << 2;
      for (let r = 0; r < 4 && first + r < below; r++) {
        const at = x + (<usize>load<i32>(list + (<usize>(first + r) << 2)) << 3);
        store<f64>(at, load<f64>(at) - load<f64>(sums + (<usize>r << 3)));
      }
    }
  }
  storePivots(s, table, x, work, F64);
}

function backward(s: i32, table: usize, rows: usize, panels: usize, x: usize, work: usize): void {
  const pivots = word(table, s, 0);
  const below = word(table, s, 1);
  const panel = panels + <usize>word(table, s, 2) * F64;
  const list = rows + (<usize>word(table, s, 3) << 2);
  const stripSize = <usize>pivots * COLUMN;
  const pivotStrips = pivots >> 2;
  const strips = pivotStrips + ((below + 3) >> 2);
  loadPivots(s, table, x, work, F64);
  for (let i = 0; i < below; i++) {
    const value = load<f64>(x + (<usize>load<i32>(list + (<usize>i << 2)) << 3));
    store<f64>(work + (<usize>(pivots + i) << 3), value);
  }
  for (let i = below; i < (strips - pivotStrips) << 2; i++) store<f64>(work + (<usize>(pivots + i) << 3), 0);
  for (let k = pivots - 1; k >= 0; k--) {
    let sum = f64x2.splat(0);
    for (let i = (k >> 2) + 1; i < strips; i++) {
      const column = panel + <usize>i * stripSize + <usize>k * COLUMN;
      const values = work + (<usize>(i << 2) << 3);
      sum = f64x2.add(sum, f64x2.mul(v128.load(column), v128.load(values)));
      sum = f64x2.add(sum, f64x2.mul(v128.load(column, 16), v128.load(values, 16)));
    }
    let total = f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1);
    const column = panel + <usize>(k >> 2) * stripSize + <usize>k * COLUMN;
    for (let r = (k & 3) + 1; r < 4; r++) {
      total += load<f64>(column + <usize>r * F64) * load<f64>(work + (<usize>((k & ~3) + r) << 3));
    }
    const at = work + (<usize>k << 3);
    store<f64>(at, (load<f64>(at) - total) / load<f64>(column + <usize>(k & 3) * F64));
  }
  storePivots(s, table, x, work, F64);
}
