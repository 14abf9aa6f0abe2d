// What a Cholesky factor will look like, before any number is known: an elimination order, the elimination tree (Liu
// 1990), which columns are eliminated together (supernodes, merged where that costs few zeros: Ashcraft and Grimes
// 1989), which rows each reaches, and where every entry of the matrix goes.
import { at, bytes, held, put, release, reserve, reserveFilled, stopped } from "./memory";
import { minimumDegree } from "./minimumDegree";
import { nestedDissection } from "./nestedDissection";

const NONE: i32 = -1;
/** Words a supernode in the table; see `cholesky.ts`. */
const WORDS: i32 = 8;
/** Up to so many vertices minimum degree alone is as good. */
const SMALL: i32 = 6000;

/** Neighbours of each vertex, from the lower triangle of a pattern. */
let start: usize = 0;
let adjacency: usize = 0;

function makeAdjacency(n: i32, columnStart: usize, row: usize): void {
  start = reserveFilled(n + 1, 0);
  for (let j = 0; j < n; j++) {
    for (let k = at(columnStart, j) + 1, end = at(columnStart, j + 1); k < end; k++) {
      put(start, j, at(start, j) + 1);
      put(start, at(row, k), at(start, at(row, k)) + 1);
    }
  }
  let sum = 0;
  for (let j = 0; j <= n; j++) {
    const count = at(start, j);
    put(start, j, sum);
    sum += count;
  }
  adjacency = reserve(sum);
  const next = reserve(n);
  memory.copy(next, start, bytes(n));
  for (let j = 0; j < n; j++) {
    for (let k = at(columnStart, j) + 1, end = at(columnStart, j + 1); k < end; k++) {
      const i = at(row, k);
      put(adjacency, at(next, j), i);
      put(next, j, at(next, j) + 1);
      put(adjacency, at(next, i), j);
      put(next, i, at(next, i) + 1);
    }
  }
}

/** Parent of each column in the order of elimination, NONE at roots. */
function eliminationTree(n: i32, order: usize, position: usize, parent: usize): void {
  const mark = held();
  const ancestor = reserve(n);
  for (let k = 0; k < n; k++) {
    put(parent, k, NONE);
    put(ancestor, k, NONE);
    const v = at(order, k);
    for (let p = at(start, v), end = at(start, v + 1); p < end; p++) {
      let i = at(position, at(adjacency, p));
      while (i < k) {
        const up = at(ancestor, i);
        put(ancestor, i, k);
        if (up == NONE) {
          put(parent, i, k);
          break;
        }
        i = up;
      }
    }
  }
  release(mark);
}

/** Renumbers the order so that each subtree is one run, children before parents. */
function postorder(n: i32, order: usize, position: usize, parent: usize): void {
  const mark = held();
  const firstChild = reserveFilled(n, 0xff);
  const sibling = reserve(n);
  const stack = reserve(n);
  const newIndex = reserve(n);
  const oldOrder = reserve(n);
  const oldParent = reserve(n);
  for (let i = n - 1; i >= 0; i--) {
    const up = at(parent, i);
    if (up == NONE) continue;
    put(sibling, i, at(firstChild, up));
    put(firstChild, up, i);
  }
  let done = 0;
  for (let root = 0; root < n; root++) {
    if (at(parent, root) != NONE) continue;
    let top = 0;
    put(stack, top++, root);
    while (top > 0) {
      const i = at(stack, top - 1);
      const child = at(firstChild, i);
      if (child != NONE) {
        put(firstChild, i, at(sibling, child));
        put(stack, top++, child);
      } else {
        put(newIndex, i, done++);
        top--;
      }
    }
  }
  memory.copy(oldOrder, order, bytes(n));
  memory.copy(oldParent, parent, bytes(n));
  for (let i = 0; i < n; i++) {
    const now = at(newIndex, i);
    const up = at(oldParent, i);
    put(order, now, at(oldOrder, i));
    put(position, at(oldOrder, i), now);
    put(parent, now, up == NONE ? NONE : at(newIndex, up));
  }
  release(mark);
}

/** Entries of each column of the factor, the diagonal among them. */
function countColumns(n: i32, order: usize, position: usize, parent: usize, counts: usize): void {
  const held0 = held();
  const mark = reserve(n);
  for (let k = 0; k < n; k++) {
    put(mark, k, k);
    put(counts, k, 1);
    const v = at(order, k);
    for (let p = at(start, v), end = at(start, v + 1); p < end; p++) {
      let i = at(position, at(adjacency, p));
      if (i > k) continue;
      while (at(mark, i) != k) {
        put(mark, i, k);
        put(counts, i, at(counts, i) + 1);
        i = at(parent, i);
      }
    }
  }
  release(held0);
}

/** Entries of a panel of `columns` pivots with `height` rows from its first on. */
@inline function panelEntries(columns: i32, height: i32): f64 {
  return <f64>columns * <f64>height - 0.5 * <f64>columns * <f64>(columns - 1);
}

/** How large a part of a panel may be zeros: small panels more, since calls cost more than sums there. */
@inline function mayBeZero(columns: i32): f64 {
  return columns <= 8 ? 1 : columns <= 24 ? 0.5 : columns <= 64 ? 0.12 : 0.05;
}

/**
 * Columns eliminated together: those of equal structure, then children merged into the parents right after them.
 *
 * @param first  receives the first column of each supernode and one past the last
 * @returns how many supernodes there are
 */
function amalgamate(n: i32, parent: usize, counts: usize, first: usize): i32 {
  const mark = held();
  const heights = reserve(n);
  const zeros = reserve(2 * n);
  // A stack of finished supernodes; the last may be the child that lies right before the next.
  let top = 0;
  for (let j = 0; j < n; j++) {
    let from = j;
    let height = at(counts, j);
    let empty: f64 = 0;
    while (top > 0) {
      const up = at(parent, from - 1);
      if (up < from || up > j) break;
      const width = from - at(first, top - 1);
      const columns = j - from + 1;
      const merged = width + columns;
      const total = panelEntries(merged, width + height);
      const nothing =
        empty +
        load<f64>(zeros + (<usize>(top - 1) << 3)) +
        total -
        panelEntries(width, at(heights, top - 1)) -
        panelEntries(columns, height);
      if (nothing > mayBeZero(merged) * total) break;
      empty = nothing;
      height += width;
      top--;
      from = at(first, top);
    }
    put(first, top, from);
    put(heights, top, height);
    store<f64>(zeros + (<usize>top << 3), empty);
    top++;
  }
  put(first, top, n);
  release(mark);
  return top;
}

// What `analyse` has made: the getters at the end hand it out.
let order: usize = 0;
let count: i32 = 0;
let table: usize = 0;
let rows: usize = 0;
let places: usize = 0;
let target: usize = 0;
let rowsLength: i32 = 0;
let panels: f64 = 0;

// The supernodes: first column of each and one past the last, rows below each as runs of `list`, and their tree.
let first: usize = 0;
let rowStart: usize = 0;
let list: usize = 0;
let child: usize = 0;
let sibling: usize = 0;

/** The tree of supernodes: the parent of each is the one that holds the parent of its last column. */
function linkSupernodes(n: i32, parent: usize): void {
  child = reserveFilled(count, 0xff);
  sibling = reserve(count);
  const nodeOf = reserve(n);
  for (let s = 0; s < count; s++) {
    for (let j = at(first, s), end = at(first, s + 1); j < end; j++) put(nodeOf, j, s);
  }
  for (let s = count - 1; s >= 0; s--) {
    const up = at(parent, at(first, s + 1) - 1);
    if (up == NONE) continue;
    const p = at(nodeOf, up);
    put(sibling, s, at(child, p));
    put(child, p, s);
  }
}

/** Rows below the pivots of each supernode: those of its own columns and of its children, ascending. */
function gatherRows(n: i32, position: usize): void {
  const seen = reserveFilled(n, 0xff);
  rowStart = reserve(count + 1);
  // How long the lists get is not known beforehand: they grow at the top of memory.
  list = reserve(0);
  let room = 0;
  let end = 0;
  put(rowStart, 0, 0);
  for (let s = 0; s < count; s++) {
    const from = at(first, s);
    const to = at(first, s + 1);
    let most = 0;
    for (let k = from; k < to; k++) most += at(start, at(order, k) + 1) - at(start, at(order, k));
    for (let c = at(child, s); c != NONE; c = at(sibling, c)) most += at(rowStart, c + 1) - at(rowStart, c);
    if (end + most > room) {
      reserve(max(most, 1 << 16));
      room += max(most, 1 << 16);
    }
    for (let k = from; k < to; k++) {
      const v = at(order, k);
      for (let p = at(start, v), stop = at(start, v + 1); p < stop; p++) {
        const i = at(position, at(adjacency, p));
        if (i < to || at(seen, i) == s) continue;
        put(seen, i, s);
        put(list, end++, i);
      }
    }
    for (let c = at(child, s); c != NONE; c = at(sibling, c)) {
      for (let p = at(rowStart, c), stop = at(rowStart, c + 1); p < stop; p++) {
        const i = at(list, p);
        if (i < to || at(seen, i) == s) continue;
        put(seen, i, s);
        put(list, end++, i);
      }
    }
    put(rowStart, s + 1, end);
  }
}

/** Sorts all rows at once by turning the lists inside out, for each row the supernodes that reach it, and back. */
function sortRows(n: i32): void {
  const mark = held();
  const total = at(rowStart, count);
  const next = reserveFilled(n + 1, 0);
  const owner = reserve(total);
  for (let k = 0; k < total; k++) put(next, at(list, k) + 1, at(next, at(list, k) + 1) + 1);
  for (let i = 0; i < n; i++) put(next, i + 1, at(next, i + 1) + at(next, i));
  for (let s = 0; s < count; s++) {
    for (let k = at(rowStart, s), end = at(rowStart, s + 1); k < end; k++) {
      const i = at(list, k);
      put(owner, at(next, i), s);
      put(next, i, at(next, i) + 1);
    }
  }
  const fill = reserve(count);
  memory.copy(fill, rowStart, bytes(count));
  let k = 0;
  for (let i = 0; i < n; i++) {
    for (const end = at(next, i); k < end; k++) {
      const s = at(owner, k);
      put(list, at(fill, s), i);
      put(fill, s, at(fill, s) + 1);
    }
  }
  release(mark);
}

@inline function padded(words: i32): i32 {
  return (words + 3) & ~3;
}

/** Words of the supernodes for blocks of `block` rows, and their rows one by one. */
function layOut(block: i32): void {
  rowsLength = block * at(rowStart, count);
  table = reserveFilled(WORDS * count, 0);
  rows = reserve(rowsLength);
  panels = 0;
  for (let s = 0; s < count; s++) {
    const own = block * (at(first, s + 1) - at(first, s));
    const below = block * (at(rowStart, s + 1) - at(rowStart, s));
    const words = table + bytes(WORDS * s);
    put(words, 0, padded(own));
    put(words, 1, below);
    put(words, 2, <i32>panels);
    put(words, 3, block * at(rowStart, s));
    for (let c = at(child, s); c != NONE; c = at(sibling, c)) put(words, 4, at(words, 4) + 1);
    put(words, 5, block * at(first, s));
    put(words, 6, own);
    panels += <f64>(padded(own) + padded(below)) * <f64>padded(own);
  }
  for (let k = 0, end = at(rowStart, count); k < end; k++) {
    for (let b = 0; b < block; b++) put(rows, block * k + b, block * at(list, k) + b);
  }
}

/** Entries of the pattern by the one of their two rows that is eliminated first, with the other one. */
let entryStart: usize = 0;
let entryOf: usize = 0;
let otherOf: usize = 0;

function sortEntries(n: i32, columnStart: usize, row: usize, position: usize): void {
  entryStart = reserveFilled(n + 1, 0);
  entryOf = reserve(at(columnStart, n));
  otherOf = reserve(at(columnStart, n));
  for (let j = 0; j < n; j++) {
    for (let k = at(columnStart, j), end = at(columnStart, j + 1); k < end; k++) {
      const low = min(at(position, j), at(position, at(row, k)));
      put(entryStart, low, at(entryStart, low) + 1);
    }
  }
  let sum = 0;
  for (let j = 0; j <= n; j++) {
    sum += at(entryStart, j);
    put(entryStart, j, sum);
  }
  for (let j = 0; j < n; j++) {
    const a = at(position, j);
    for (let k = at(columnStart, j), end = at(columnStart, j + 1); k < end; k++) {
      const b = at(position, at(row, k));
      const slot = at(entryStart, min(a, b)) - 1;
      put(entryStart, min(a, b), slot);
      // A block, or a complex number, whose column is eliminated after its row lands transposed: said by its sign.
      put(entryOf, slot, a > b ? ~k : k);
      put(otherOf, slot, max(a, b));
    }
  }
}

/**
 * Where each entry of the pattern goes among the panels, and each row of an update block in its parent's front. Row r
 * of a front lies in strip r >> 2; a block of two rows never straddles two strips.
 */
function findPlaces(n: i32, entries: i32, block: i32): void {
  places = reserve(rowsLength);
  target = reserve(entries);
  const local = reserve(n);
  for (let s = 0; s < count; s++) {
    const words = table + bytes(WORDS * s);
    const pivots = at(words, 0);
    const from = at(first, s);
    const to = at(first, s + 1);
    for (let j = from; j < to; j++) put(local, j, block * (j - from));
    for (let k = at(rowStart, s), end = at(rowStart, s + 1), r = pivots; k < end; k++, r += block) {
      put(local, at(list, k), r);
    }
    for (let j = from; j < to; j++) {
      const column = at(local, j);
      for (let k = at(entryStart, j), end = at(entryStart, j + 1); k < end; k++) {
        const coded = at(entryOf, k);
        const r = at(local, at(otherOf, k));
        const place = at(words, 2) + ((r >> 2) * pivots + column) * 4 + (r & 3);
        put(target, coded < 0 ? ~coded : coded, coded < 0 ? ~place : place);
      }
    }
    for (let c = at(child, s); c != NONE; c = at(sibling, c)) {
      for (let k = at(rowStart, c), end = at(rowStart, c + 1); k < end; k++) {
        for (let b = 0; b < block; b++) put(places, block * k + b, at(local, at(list, k)) + b);
      }
    }
  }
}

/** Room for the pattern: its `columnStart`, n + 1 words, then its rows. Forgets all that was made before. */
export function begin(n: i32, entries: i32): usize {
  release(0);
  return reserve(n + 1 + entries);
}

/**
 * @param pattern  what `begin` gave, filled: the lower triangle column by column, the diagonal first in each
 * @param block  1, or 2 for a matrix with a full 2 × 2 block for each entry of the pattern
 * @param ordering  0 to choose by size, 1 for minimum degree, 2 for nested dissection
 * @returns −1, or −2 when stopped
 */
export function analyse(n: i32, pattern: usize, block: i32, ordering: i32): i32 {
  const columnStart = pattern;
  const row = pattern + bytes(n + 1);
  order = reserve(n);
  makeAdjacency(n, columnStart, row);
  if (ordering == 2 || (ordering == 0 && n > SMALL)) {
    if (!nestedDissection(n, start, adjacency, order)) return -2;
  } else if (minimumDegree(n, start, adjacency, reserveFilled((n + 3) >> 2, 0), order) < 0) return -2;

  if (stopped()) return -2;
  const position = reserve(n);
  const parent = reserve(n);
  const counts = reserve(n);
  first = reserve(n + 1);
  for (let k = 0; k < n; k++) put(position, at(order, k), k);
  eliminationTree(n, order, position, parent);
  if (stopped()) return -2;
  postorder(n, order, position, parent);
  countColumns(n, order, position, parent, counts);
  count = amalgamate(n, parent, counts, first);
  if (stopped()) return -2;
  linkSupernodes(n, parent);
  gatherRows(n, position);
  sortRows(n);
  layOut(block);
  if (stopped()) return -2;
  sortEntries(n, columnStart, row, position);
  findPlaces(n, at(columnStart, n), block);
  return stopped() ? -2 : -1;
}

export function supernodeCount(): i32 {
  return count;
}
export function rowCount(): i32 {
  return rowsLength;
}
/** Size of all panels in 64-bit numbers. */
export function panelSize(): f64 {
  return panels;
}
export function orderAt(): usize {
  return order;
}
export function tableAt(): usize {
  return table;
}
export function rowsAt(): usize {
  return rows;
}
export function placesAt(): usize {
  return places;
}
export function targetAt(): usize {
  return target;
}
