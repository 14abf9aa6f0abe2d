import { HemError, StoppedError } from '../errors.ts';
import type { Context } from '../progress.ts';
import { type Kernel, MOST_BYTES, returnKernel, STOPPED, takeKernel } from './kernel.ts';
import type { Pattern } from './sparse.ts';

/**
 * Sparse Cholesky factorisation of positive definite matrices, symmetric or Hermitian, in two steps: `analyse` once per pattern,
 * `factorise` for every set of values. Nobody outside this folder knows how it is done: a supernodal multifrontal
 * method (Duff and Reid 1983; Liu 1992) after a fill-reducing ordering, all of it in the WebAssembly of
 * packages/kernel.
 */
export interface Analysis {
  /** Rows of the matrix. */
  readonly size: number;
  /** Rows of the matrix for each one of the pattern: 1 or 2. */
  readonly block: number;
  /** Whether entries are complex: half the work and memory of a real matrix with a 2 × 2 block for each. */
  readonly complex: boolean;
  /** `order[k]` is the row of the pattern eliminated k-th. */
  readonly order: Uint32Array;
  readonly count: number;
  /** Words of the supernodes, `WORDS` each: see packages/kernel/assembly/cholesky.ts. */
  readonly table: Int32Array;
  /** Rows below the pivots of each supernode, in the order of elimination. */
  readonly rows: Int32Array;
  /** Where each of them stands in the parent's front. */
  readonly places: Int32Array;
  /**
   * Place of each entry of the pattern among the panels, its first one where it is a block; `~place` where it lands transposed. The
   * imaginary part of a complex one stands `IMAGINARY` numbers after the real one.
   */
  readonly target: Int32Array;
  /** Sizes in 8-byte numbers. */
  readonly panels: number;
  readonly stack: number;
  readonly front: number;
}

export interface Factor {
  readonly analysis: Analysis;
  /** Gone once released. */
  kernel: Kernel | undefined;
}

/** The matrix is not positive definite: a pivot was zero, negative or not a number. */
export class NotPositiveDefiniteError extends HemError {
  constructor(row: number) {
    super('not-positive-definite', 'The equations of this shell have no single answer.', [row]);
    this.name = 'NotPositiveDefiniteError';
  }
}

/** The factor does not fit the memory one solver may have. */
export class TooLargeError extends HemError {
  constructor() {
    super('too-large', 'This shell is too large to solve in one piece: cut it in two.');
    this.name = 'TooLargeError';
  }
}

export const WORDS = 8;
export const IMAGINARY = 4;
const TILE = 16;
const padded = (count: number): number => (count + 3) & ~3;
/** Numbers in the lower triangle of tiles of an update block. */
const updateSize = (rows: number): number => {
  const strips = padded(rows) / 4;
  return (TILE * strips * (strips + 1)) / 2;
};

export interface AnalyseOptions {
  /** 2 for a matrix with a full 2 × 2 block for each entry of the pattern. */
  readonly block?: 1 | 2;
  /** For a Hermitian matrix of complex numbers, with single ones for the entries of the pattern. */
  readonly complex?: boolean;
  /** Chosen by size when absent. */
  readonly ordering?: 'minimum-degree' | 'nested-dissection';
  readonly signal?: Context['signal'];
}

const ORDERINGS = { 'minimum-degree': 1, 'nested-dissection': 2 };

/**
 * Finds an elimination order with little fill and lays out the factor.
 *
 * @throws StoppedError, TooLargeError
 */
export function analyse(
  pattern: Pattern,
  { block = 1, complex = false, ordering, signal }: AnalyseOptions = {},
): Analysis {
  const kernel = takeKernel(0, signal);
  const { size, columnStart, row } = pattern;
  const list = (at: number, length: number) => new Int32Array(kernel.memory.buffer, at, length);
  let result: number;
  try {
    const at = kernel.begin(size, row.length);
    list(at, size + 1).set(columnStart);
    list(at + 4 * (size + 1), row.length).set(row);
    result = kernel.analyse(size, at, block, ordering ? ORDERINGS[ordering] : 0);
  } catch {
    // Memory is the only thing it can run out of.
    throw new TooLargeError();
  }
  if (result === STOPPED) {
    returnKernel(kernel);
    throw new StoppedError();
  }
  const count = kernel.supernodeCount();
  const table = list(kernel.tableAt(), WORDS * count).slice();
  const target = list(kernel.targetAt(), row.length).slice();
  const numbers = complex ? 2 : 1;
  if (complex) {
    for (let w = 2; w < table.length; w += WORDS) table[w] *= 2;
    for (let k = 0; k < target.length; k++) target[k] = complexPlace(target[k]);
  }
  const working = workingSizes(count, table);
  const analysis = {
    size: block * size,
    block,
    complex,
    order: Uint32Array.from(list(kernel.orderAt(), size)),
    count,
    table,
    rows: list(kernel.rowsAt(), kernel.rowCount()).slice(),
    places: list(kernel.placesAt(), kernel.rowCount()).slice(),
    target,
    panels: numbers * kernel.panelSize(),
    stack: numbers * working.stack,
    front: numbers * working.front,
  };
  returnKernel(kernel);
  if (layout(analysis, 1).bytes > MOST_BYTES) throw new TooLargeError();
  return analysis;
}

/** Where the real part of a complex entry stands: columns of a strip are eight numbers apart then, not four. */
const complexPlace = (coded: number): number => {
  const place = coded < 0 ? ~coded : coded;
  const next = 2 * place - (place & 3);
  return coded < 0 ? ~next : next;
};

/** The most that waiting update blocks, and the one being made, take at any time; and the longest front. */
function workingSizes(count: number, table: Int32Array): { stack: number; front: number } {
  const waiting: number[] = [];
  let [top, stack, front] = [0, 0, 0];
  for (let s = 0; s < count; s++) {
    const [pivots, below, , , children] = table.subarray(WORDS * s, WORDS * s + 5);
    const size = updateSize(below);
    front = Math.max(front, 2 * pivots + padded(below));
    stack = Math.max(stack, top + size);
    for (let c = 0; c < children; c++) top -= waiting.pop() as number;
    waiting.push(size);
    top += size;
  }
  return { stack, front };
}

/** Byte addresses of the kernel's arrays, one after the other. */
function layout({ count, size, rows, panels, stack, front, complex }: Analysis, sides: number) {
  let end = 0;
  const place = (bytes: number): number => {
    const at = end;
    end += (bytes + 15) & ~15;
    return at;
  };
  const table = place(4 * WORDS * count);
  const places = place(4 * rows.length);
  const rowsAt = place(4 * rows.length);
  const offsets = place(8 * count);
  const work = place(8 * front);
  const panelsAt = end;
  end += 8 * panels;
  // The stack is idle while solving, so right-hand sides take its place.
  const stackAt = end;
  end += 8 * Math.max(stack, (complex ? 2 : 1) * size * sides);
  return { table, places, rows: rowsAt, offsets, work, panels: panelsAt, stack: stackAt, bytes: end };
}

/** Most right-hand sides solved in one go. */
export const MOST_SIDES = 2;

/**
 * @param values  of the pattern that was analysed, in its order; its entries must be single real numbers
 * @param signal  stops the work between supernodes
 * @param reuse  an earlier factor of the same analysis, whose memory may be taken over; it is spent then
 * @throws NotPositiveDefiniteError, StoppedError
 */
export function factorise(
  analysis: Analysis,
  values: Float64Array,
  signal?: Context['signal'],
  reuse?: Factor,
): Factor {
  const { target } = analysis;
  const fill = (panels: Float64Array) => {
    for (let k = 0; k < target.length; k++) panels[target[k] < 0 ? ~target[k] : target[k]] = values[k];
  };
  return factoriseFilled(analysis, fill, signal, reuse);
}

/**
 * The same for a matrix that is put straight where the factor will be.
 *
 * @param fill  adds the entries into the panels, all zeros, at the places that `target` names
 */
export function factoriseFilled(
  analysis: Analysis,
  fill: (panels: Float64Array) => void,
  signal?: Context['signal'],
  reuse?: Factor,
): Factor {
  const at = layout(analysis, MOST_SIDES);
  const kernel = reuse?.kernel ?? prepared(analysis, at, signal);
  const factor = reuse ?? { analysis, kernel };
  factor.kernel = kernel;
  const panels = new Float64Array(kernel.memory.buffer, at.panels, analysis.panels);
  if (!kernel.fresh) panels.fill(0);
  kernel.fresh = false;
  try {
    fill(panels);
  } catch (error) {
    release(factor);
    throw error;
  }
  padPivots(analysis, panels);
  kernel.watch.signal = signal;
  const work = analysis.complex ? kernel.factorHermitian : kernel.factor;
  const result = work(analysis.count, at.table, at.places, at.panels, at.stack, at.offsets);
  kernel.watch.signal = undefined;
  if (result === -1) return factor;
  release(factor);
  if (result === STOPPED) throw new StoppedError();
  throw new NotPositiveDefiniteError(
    analysis.order[analysis.table[WORDS * result + 5] / analysis.block] * analysis.block,
  );
}

/** Ones on the diagonal of the columns that pad pivots to a multiple of 4. */
function padPivots({ count, table, complex }: Analysis, panels: Float64Array): void {
  const column = complex ? 8 : 4;
  for (let w = 0; w < WORDS * count; w += WORDS) {
    const pivots = table[w];
    for (let k = table[w + 6]; k < pivots; k++) {
      panels[table[w + 2] + ((k >> 2) * pivots + k) * column + (k & 3)] = 1;
    }
  }
}

function prepared(
  analysis: Analysis,
  at: ReturnType<typeof layout>,
  signal: Context['signal'] | undefined,
): Kernel {
  const kernel = takeKernel(at.bytes, signal);
  const put = (place: number, list: Int32Array) =>
    new Int32Array(kernel.memory.buffer, place, list.length).set(list);
  put(at.table, analysis.table);
  put(at.places, analysis.places);
  put(at.rows, analysis.rows);
  return kernel;
}

/**
 * X with A X = B.
 *
 * @param b  up to `MOST_SIDES` right-hand sides, one after the other; complex numbers with their two parts side by side
 * @throws StoppedError; the factor can be used again
 */
export function solve(
  { analysis, kernel }: Factor,
  b: Float64Array,
  signal?: Context['signal'],
): Float64Array {
  if (!kernel) throw new Error('This factor has been released.');
  const { size, order, count, block, complex } = analysis;
  const length = complex ? 2 * size : size;
  const parts = complex ? 2 : block;
  const at = layout(analysis, MOST_SIDES);
  const y = new Float64Array(kernel.memory.buffer, at.stack, b.length);
  for (let s = 0; s < b.length; s += length) {
    for (let k = 0; k < length; k++) y[s + k] = b[s + place(order, parts, k)];
  }
  kernel.watch.signal = signal;
  const work = complex ? kernel.solveHermitian : kernel.solve;
  const done = work(count, at.table, at.rows, at.panels, at.stack, size, b.length / length, at.work);
  kernel.watch.signal = undefined;
  if (!done) throw new StoppedError();
  const x = new Float64Array(b.length);
  for (let s = 0; s < b.length; s += length) {
    for (let k = 0; k < length; k++) x[s + place(order, parts, k)] = y[s + k];
  }
  return x;
}

/** Row of the matrix, or part of one, that is eliminated k-th. */
const place = (order: Uint32Array, parts: number, k: number): number =>
  parts === 1 ? order[k] : 2 * order[k >> 1] + (k & 1);

/** Gives the factor's memory back early; it must not be used any more, but may be released again. */
export function release(factor: Factor): void {
  if (factor.kernel) returnKernel(factor.kernel);
  factor.kernel = undefined;
}
