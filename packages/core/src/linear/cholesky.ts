import { HemError, StoppedError } from '../errors.ts';
import { bucket } from '../mesh/connectivity.ts';
import type { Context } from '../progress.ts';
import { type Kernel, MOST_BYTES, startKernel } from './kernel.ts';
import type { Pattern } from './sparse.ts';
import { doubled, permutedEntries, type Supernodes, supernodes } from './supernodes.ts';

/**
 * Sparse Cholesky factorisation of symmetric positive definite matrices in two steps: `analyse` once per pattern,
 * `factorise` for every set of values. Nobody outside this folder knows how it is done: a supernodal multifrontal
 * method (Duff and Reid 1983; Liu 1992) whose numbers are worked on by the WebAssembly of packages/kernel.
 */
export interface Analysis {
  readonly nodes: Supernodes;
  /** Place of each entry of the pattern among the panels. */
  readonly target: Float64Array;
  /** Places of the ones on the diagonal that pad pivots to a multiple of 4. */
  readonly padding: Float64Array;
  /** Words of the supernodes, as the kernel wants them. */
  readonly table: Int32Array;
  /** Rows of each update block within the parent's front; as long as `nodes.rows`. */
  readonly places: Int32Array;
  /** Sizes in 8-byte numbers. */
  readonly panels: number;
  readonly stack: number;
  readonly front: number;
}

export interface Factor {
  readonly analysis: Analysis;
  readonly kernel: Kernel;
  /** Changed by the newest call; read by the kernel while it works. */
  readonly watch: { signal: Context['signal'] | undefined };
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

const WORDS = 8;
const TILE = 16;
const padded = (count: number): number => (count + 3) & ~3;
/** Numbers in the lower triangle of tiles of an update block. */
const updateSize = (rows: number): number => {
  const strips = padded(rows) / 4;
  return (TILE * strips * (strips + 1)) / 2;
};

/**
 * @param order  elimination order of all rows, as from `minimumDegree`
 */
export function analyse(pattern: Pattern, order: Uint32Array): Analysis {
  return analysed(pattern, supernodes(pattern, order));
}

/**
 * The same for a matrix of full 2 × 2 blocks: its graph is a quarter as large to go through.
 *
 * @param graph  where the blocks are
 * @param order  elimination order of the graph
 */
export function analyseBlocks(pattern: Pattern, graph: Pattern, order: Uint32Array): Analysis {
  return analysed(pattern, doubled(supernodes(graph, order)));
}

function analysed(pattern: Pattern, nodes: Supernodes): Analysis {
  const { count, first, rowStart, parent } = nodes;
  const table = new Int32Array(WORDS * count);
  const panelPlace = new Float64Array(count);
  const padding: number[] = [];
  let [panels, front] = [0, 0];
  for (let s = 0; s < count; s++) {
    const own = first[s + 1] - first[s];
    const pivots = padded(own);
    const below = rowStart[s + 1] - rowStart[s];
    panelPlace[s] = panels;
    table.set([pivots, below, panels, rowStart[s], 0, first[s], own], WORDS * s);
    for (let k = own; k < pivots; k++) padding.push(inPanel(panels, pivots, k, k));
    panels += (pivots + padded(below)) * pivots;
    front = Math.max(front, 2 * pivots + padded(below));
  }
  for (const p of parent) if (p >= 0) table[WORDS * p + 4]++;
  const { target, places } = targets(pattern, nodes, panelPlace);
  return {
    nodes,
    target,
    padding: Float64Array.from(padding),
    table,
    places,
    panels,
    stack: stackSize(nodes, table),
    front,
  };
}

/** Place of an entry of a panel: strips of four rows, within them column after column. */
const inPanel = (panel: number, pivots: number, row: number, column: number): number =>
  panel + ((row >> 2) * pivots + column) * 4 + (row & 3);

/** Where each entry of the matrix goes, and each row of an update block in the parent's front. */
function targets(pattern: Pattern, nodes: Supernodes, panelPlace: Float64Array) {
  const { count, first, rowStart, rows, parent, size } = nodes;
  const { low, high } = permutedEntries(pattern, nodes.order);
  const columns = bucket(low, size);
  const children = bucket(
    Uint32Array.from(parent, (p) => (p < 0 ? count : p)),
    count + 1,
  );
  const target = new Float64Array(pattern.row.length);
  const places = new Int32Array(rows.length);
  const local = new Int32Array(size);
  for (let s = 0; s < count; s++) {
    const pivots = padded(first[s + 1] - first[s]);
    for (let j = first[s]; j < first[s + 1]; j++) local[j] = j - first[s];
    for (let i = rowStart[s]; i < rowStart[s + 1]; i++) local[rows[i]] = pivots + i - rowStart[s];
    for (let j = first[s]; j < first[s + 1]; j++) {
      for (let k = columns.start[j]; k < columns.start[j + 1]; k++) {
        const entry = columns.items[k];
        target[entry] = inPanel(panelPlace[s], pivots, local[high[entry]], local[j]);
      }
    }
    for (let c = children.start[s]; c < children.start[s + 1]; c++) {
      const child = children.items[c];
      for (let i = rowStart[child]; i < rowStart[child + 1]; i++) places[i] = local[rows[i]];
    }
  }
  return { target, places };
}

/** The most that waiting update blocks, and the one being made, take at any time. */
function stackSize({ count, rowStart }: Supernodes, table: Int32Array): number {
  const waiting: number[] = [];
  let [top, most] = [0, 0];
  for (let s = 0; s < count; s++) {
    const size = updateSize(rowStart[s + 1] - rowStart[s]);
    most = Math.max(most, top + size);
    for (let c = 0; c < table[WORDS * s + 4]; c++) top -= waiting.pop() as number;
    waiting.push(size);
    top += size;
  }
  return most;
}

/** Byte addresses of the kernel's arrays, one after the other. */
function layout({ nodes, panels, stack, front }: Analysis) {
  let end = 0;
  const place = (bytes: number): number => {
    const at = end;
    end += (bytes + 15) & ~15;
    return at;
  };
  const table = place(4 * WORDS * nodes.count);
  const places = place(4 * nodes.rows.length);
  const rows = place(4 * nodes.rows.length);
  const offsets = place(8 * nodes.count);
  const x = place(8 * nodes.size);
  const work = place(8 * front);
  const panelsAt = end;
  end += 8 * panels;
  const stackAt = end;
  end += 8 * stack;
  return { table, places, rows, offsets, x, work, panels: panelsAt, stack: stackAt, bytes: end };
}

/**
 * @param values  of the pattern that was analysed, in its order
 * @param signal  stops the work between supernodes
 * @param reuse  an earlier factor of the same analysis, whose memory may be taken over; it is spent then
 * @throws NotPositiveDefiniteError, StoppedError, TooLargeError
 */
export function factorise(
  analysis: Analysis,
  values: Float64Array,
  signal?: Context['signal'],
  reuse?: Factor,
): Factor {
  const at = layout(analysis);
  if (at.bytes > MOST_BYTES) throw new TooLargeError();
  const factor = reuse ?? prepared(analysis, at);
  const panels = new Float64Array(factor.kernel.memory.buffer, at.panels, analysis.panels);
  if (reuse) panels.fill(0);
  const { target, padding, nodes } = analysis;
  for (let k = 0; k < target.length; k++) panels[target[k]] = values[k];
  for (let k = 0; k < padding.length; k++) panels[padding[k]] = 1;
  factor.watch.signal = signal;
  const result = factor.kernel.factor(nodes.count, at.table, at.places, at.panels, at.stack, at.offsets);
  if (result === -2) throw new StoppedError();
  if (result >= 0) throw new NotPositiveDefiniteError(nodes.order[nodes.first[result]]);
  return factor;
}

function prepared(analysis: Analysis, at: ReturnType<typeof layout>): Factor {
  const watch: Factor['watch'] = { signal: undefined };
  const kernel = startKernel(at.bytes, () => watch.signal?.aborted === true);
  const { buffer } = kernel.memory;
  new Int32Array(buffer, at.table, analysis.table.length).set(analysis.table);
  new Int32Array(buffer, at.places, analysis.places.length).set(analysis.places);
  new Uint32Array(buffer, at.rows, analysis.nodes.rows.length).set(analysis.nodes.rows);
  return { analysis, kernel, watch };
}

/** x with A x = b. */
export function solve({ analysis, kernel }: Factor, b: Float64Array): Float64Array {
  const { size, order, count } = analysis.nodes;
  const at = layout(analysis);
  const y = new Float64Array(kernel.memory.buffer, at.x, size);
  for (let k = 0; k < size; k++) y[k] = b[order[k]];
  kernel.solve(count, at.table, at.rows, at.panels, at.x, at.work);
  const x = new Float64Array(size);
  for (let k = 0; k < size; k++) x[order[k]] = y[k];
  return x;
}
