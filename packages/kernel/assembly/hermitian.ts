// Tiles, and fronts of a solve, of complex numbers: a column of a tile has its four real parts, then the four imaginary
// ones. Vectors have each number's two parts side by side. Diagonals of a Hermitian matrix and of its factor are real.
import { F64, loadPivots, minusProduct, plusProduct, storePivots, word } from "./panels";

const COMPLEX: usize = 2 * F64;
const COLUMN: usize = 4 * COMPLEX;
const IMAGINARY: usize = 4 * F64;

/** C −= A Bᴴ over `depth` columns of strips A and B, C one tile. Two columns of C at a time: more would not stay in registers. */
export function subtractHermitianProduct(c: usize, a: usize, b: usize, depth: i32): void {
  subtractHalf(c, a, b, depth);
  subtractHalf(c + 2 * COLUMN, a, b + 2 * F64, depth);
}

@inline function subtractHalf(c: usize, a: usize, b: usize, depth: i32): void {
  let r0 = v128.load(c);
  let r1 = v128.load(c, 16);
  let i0 = v128.load(c, 32);
  let i1 = v128.load(c, 48);
  let r2 = v128.load(c, 64);
  let r3 = v128.load(c, 80);
  let i2 = v128.load(c, 96);
  let i3 = v128.load(c, 112);
  const end = a + <usize>depth * COLUMN;
  while (a < end) {
    const low = v128.load(a);
    const high = v128.load(a, 16);
    const lowI = v128.load(a, 32);
    const highI = v128.load(a, 48);
    let s = v128.load_splat<f64>(b);
    r0 = minusProduct(r0, low, s);
    r1 = minusProduct(r1, high, s);
    i0 = minusProduct(i0, lowI, s);
    i1 = minusProduct(i1, highI, s);
    s = v128.load_splat<f64>(b, 32);
    r0 = minusProduct(r0, lowI, s);
    r1 = minusProduct(r1, highI, s);
    i0 = plusProduct(i0, low, s);
    i1 = plusProduct(i1, high, s);
    s = v128.load_splat<f64>(b, 8);
    r2 = minusProduct(r2, low, s);
    r3 = minusProduct(r3, high, s);
    i2 = minusProduct(i2, lowI, s);
    i3 = minusProduct(i3, highI, s);
    s = v128.load_splat<f64>(b, 40);
    r2 = minusProduct(r2, lowI, s);
    r3 = minusProduct(r3, highI, s);
    i2 = plusProduct(i2, low, s);
    i3 = plusProduct(i3, high, s);
    a += COLUMN;
    b += COLUMN;
  }
  v128.store(c, r0);
  v128.store(c, r1, 16);
  v128.store(c, i0, 32);
  v128.store(c, i1, 48);
  v128.store(c, r2, 64);
  v128.store(c, r3, 80);
  v128.store(c, i2, 96);
  v128.store(c, i3, 112);
}

/** Cholesky factor of one tile, in its lower half; false when a pivot is not positive. */
export function factorHermitianTile(t: usize): bool {
  for (let j: usize = 0; j < 4; j++) {
    const column = t + j * COLUMN;
    const pivot = load<f64>(column + j * F64);
    if (!(pivot > 0)) return false;
    const root = Math.sqrt(pivot);
    store<f64>(column + j * F64, root);
    store<f64>(column + j * F64, 0, IMAGINARY);
    for (let i = j + 1; i < 4; i++) {
      const at = column + i * F64;
      store<f64>(at, load<f64>(at) / root);
      store<f64>(at, load<f64>(at, IMAGINARY) / root, IMAGINARY);
    }
    for (let k = j + 1; k < 4; k++) {
      const real = load<f64>(column + k * F64);
      const imaginary = load<f64>(column + k * F64, IMAGINARY);
      for (let i = k; i < 4; i++) {
        const at = t + k * COLUMN + i * F64;
        const x = load<f64>(column + i * F64);
        const y = load<f64>(column + i * F64, IMAGINARY);
        store<f64>(at, load<f64>(at) - (x * real + y * imaginary));
        store<f64>(at, load<f64>(at, IMAGINARY) - (y * real - x * imaginary), IMAGINARY);
      }
    }
  }
  return true;
}

/** X Lᴴ = T for one tile T below the factored tile L; X takes T's place. */
export function solveHermitianTile(t: usize, l: usize): void {
  for (let j: usize = 0; j < 4; j++) {
    const column = t + j * COLUMN;
    let low = v128.load(column);
    let high = v128.load(column, 16);
    let lowI = v128.load(column, 32);
    let highI = v128.load(column, 48);
    for (let k: usize = 0; k < j; k++) {
      const other = t + k * COLUMN;
      let s = v128.load_splat<f64>(l + k * COLUMN + j * F64);
      low = minusProduct(low, v128.load(other), s);
      high = minusProduct(high, v128.load(other, 16), s);
      lowI = minusProduct(lowI, v128.load(other, 32), s);
      highI = minusProduct(highI, v128.load(other, 48), s);
      s = v128.load_splat<f64>(l + k * COLUMN + j * F64, 32);
      low = minusProduct(low, v128.load(other, 32), s);
      high = minusProduct(high, v128.load(other, 48), s);
      lowI = plusProduct(lowI, v128.load(other), s);
      highI = plusProduct(highI, v128.load(other, 16), s);
    }
    const s = v128.load_splat<f64>(l + j * COLUMN + j * F64);
    v128.store(column, f64x2.div(low, s));
    v128.store(column, f64x2.div(high, s), 16);
    v128.store(column, f64x2.div(lowI, s), 32);
    v128.store(column, f64x2.div(highI, s), 48);
  }
}

/** L y = b, the part of one supernode. */
export function forwardHermitian(s: i32, table: usize, rows: usize, panels: usize, x: usize, work: usize): void {
  const pivots = word(table, s, 0);
  const below = word(table, s, 1);
  const panel = panels + <usize>word(table, s, 2) * F64;
  const list = rows + (<usize>word(table, s, 3) << 2);
  const stripSize = <usize>pivots * COLUMN;
  const pivotStrips = pivots >> 2;
  const strips = pivotStrips + ((below + 3) >> 2);
  const sums = work + <usize>(pivots + ((below + 3) & ~3)) * COMPLEX;
  loadPivots(s, table, x, work, COMPLEX);
  for (let i = 0; i < strips; i++) {
    const strip = panel + <usize>i * stripSize;
    const depth = i < pivotStrips ? i << 2 : pivots;
    let low = f64x2.splat(0);
    let high = f64x2.splat(0);
    let lowI = f64x2.splat(0);
    let highI = f64x2.splat(0);
    for (let k = 0; k < depth; k++) {
      const column = strip + <usize>k * COLUMN;
      const real = v128.load_splat<f64>(work + <usize>k * COMPLEX);
      const imaginary = v128.load_splat<f64>(work + <usize>k * COMPLEX, 8);
      low = minusProduct(plusProduct(low, v128.load(column), real), v128.load(column, 32), imaginary);
      high = minusProduct(plusProduct(high, v128.load(column, 16), real), v128.load(column, 48), imaginary);
      lowI = plusProduct(plusProduct(lowI, v128.load(column, 32), real), v128.load(column), imaginary);
      highI = plusProduct(plusProduct(highI, v128.load(column, 48), real), v128.load(column, 16), imaginary);
    }
    v128.store(sums, low);
    v128.store(sums, high, 16);
    v128.store(sums, lowI, 32);
    v128.store(sums, highI, 48);
    if (i < pivotStrips) {
      const tile = strip + <usize>depth * COLUMN;
      for (let r = 0; r < 4; r++) {
        const at = work + <usize>(depth + r) * COMPLEX;
        let real = load<f64>(at) - load<f64>(sums + <usize>r * F64);
        let imaginary = load<f64>(at, 8) - load<f64>(sums + <usize>r * F64, 32);
        for (let k = 0; k < r; k++) {
          const entry = tile + <usize>k * COLUMN + <usize>r * F64;
          const other = work + <usize>(depth + k) * COMPLEX;
          real -= load<f64>(entry) * load<f64>(other) - load<f64>(entry, 32) * load<f64>(other, 8);
          imaginary -= load<f64>(entry) * load<f64>(other, 8) + load<f64>(entry, 32) * load<f64>(other);
        }
        const pivot = load<f64>(tile + <usize>r * COLUMN + <usize>r * F64);
        store<f64>(at, real / pivot);
        store<f64>(at, imaginary / pivot, 8);
      }
    } else {
      const first = (i - pivotStrips) << 2;
      for (let r = 0; r < 4 && first + r < below; r++) {
        const at = x + <usize>load<i32>(list + (<usize>(first + r) << 2)) * COMPLEX;
        store<f64>(at, load<f64>(at) - load<f64>(sums + <usize>r * F64));
        store<f64>(at, load<f64>(at, 8) - load<f64>(sums + <usize>r * F64, 32), 8);
      }
    }
  }
  storePivots(s, table, x, work, COMPLEX);
}

/** Lᴴ x = y, the part of one supernode. */
export function backwardHermitian(s: i32, table: usize, rows: usize, panels: usize, x: usize, work: usize): void {
  const pivots = word(table, s, 0);
  const below = word(table, s, 1);
  const panel = panels + <usize>word(table, s, 2) * F64;
  const list = rows + (<usize>word(table, s, 3) << 2);
  const stripSize = <usize>pivots * COLUMN;
  const pivotStrips = pivots >> 2;
  const strips = pivotStrips + ((below + 3) >> 2);
  loadPivots(s, table, x, work, COMPLEX);
  for (let i = 0; i < below; i++) {
    const from = x + <usize>load<i32>(list + (<usize>i << 2)) * COMPLEX;
    v128.store(work + <usize>(pivots + i) * COMPLEX, v128.load(from));
  }
  for (let i = below; i < (strips - pivotStrips) << 2; i++) v128.store(work + <usize>(pivots + i) * COMPLEX, f64x2.splat(0));
  for (let k = pivots - 1; k >= 0; k--) {
    // Σ conj(l) v, first in two halves: those with the real parts of l and those with the imaginary ones.
    let sum = f64x2.splat(0);
    let cross = f64x2.splat(0);
    for (let i = (k >> 2) + 1; i < strips; i++) {
      const column = panel + <usize>i * stripSize + <usize>k * COLUMN;
      const values = work + <usize>(i << 2) * COMPLEX;
      for (let r: usize = 0; r < 4; r++) {
        const value = v128.load(values + r * COMPLEX);
        sum = plusProduct(sum, value, v128.load_splat<f64>(column + r * F64));
        cross = plusProduct(cross, value, v128.load_splat<f64>(column + r * F64, 32));
      }
    }
    let real = f64x2.extract_lane(sum, 0) + f64x2.extract_lane(cross, 1);
    let imaginary = f64x2.extract_lane(sum, 1) - f64x2.extract_lane(cross, 0);
    const column = panel + <usize>(k >> 2) * stripSize + <usize>k * COLUMN;
    for (let r = (k & 3) + 1; r < 4; r++) {
      const entry = column + <usize>r * F64;
      const other = work + <usize>((k & ~3) + r) * COMPLEX;
      real += load<f64>(entry) * load<f64>(other) + load<f64>(entry, 32) * load<f64>(other, 8);
      imaginary += load<f64>(entry) * load<f64>(other, 8) - load<f64>(entry, 32) * load<f64>(other);
    }
    const at = work + <usize>k * COMPLEX;
    const pivot = load<f64>(column + <usize>(k & 3) * F64);
    store<f64>(at, (load<f64>(at) - real) / pivot);
    store<f64>(at, (load<f64>(at, 8) - imaginary) / pivot, 8);
  }
  storePivots(s, table, x, work, COMPLEX);
}
