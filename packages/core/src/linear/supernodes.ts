import { bucket } from '../mesh/connectivity.ts';
import type { Pattern } from './sparse.ts';

/**
 * What a Cholesky factor looks like, before any number is known: which columns are eliminated together
 * (supernodes), and which rows each of them reaches.
 */
export interface Supernodes {
  readonly size: number;
  /** `order[k]` is the row of the matrix eliminated k-th; children come right before their parents. */
  readonly order: Uint32Array;
  readonly count: number;
  /** First column of each supernode, and one past the last: `count + 1`. */
  readonly first: Uint32Array;
  /** Rows below the pivots of supernode s, ascending: `rows[rowStart[s] … rowStart[s + 1]]`. */
  readonly rowStart: Uint32Array;
  readonly rows: Uint32Array;
  /** Supernode that takes up each one's update; -1 at roots. */
  readonly parent: Int32Array;
}

/**
 * Elimination tree (Liu 1990), its postorder, column counts, and supernodes merged where that costs few zeros
 * (relaxed amalgamation; Ashcraft and Grimes 1989).
 *
 * @param order  elimination order of all rows, as from `minimumDegree`
 */
export function supernodes(pattern: Pattern, order: Uint32Array): Supernodes {
  const n = pattern.size;
  const before = eliminationTree(n, upperColumns(pattern, order));
  const post = postorder(before);
  const finalOrder = post.map((k) => order[k]);
  const upper = upperColumns(pattern, finalOrder);
  const parent = eliminationTree(n, upper);
  const counts = columnCounts(n, upper, parent);
  const { first, columnNode } = amalgamated(parent, counts);
  const count = first.length - 1;
  const nodeParent = new Int32Array(count).fill(-1);
  for (let s = 0; s < count; s++) {
    const up = parent[first[s + 1] - 1];
    if (up >= 0) nodeParent[s] = columnNode[up];
  }
  const { rowStart, rows } = structures(pattern, finalOrder, first, nodeParent);
  return { size: n, order: finalOrder, count, first, rowStart, rows, parent: nodeParent };
}

/** The same elimination with every row and column made two. */
export function doubled(nodes: Supernodes): Supernodes {
  const twice = (list: Uint32Array) =>
    Uint32Array.from({ length: 2 * list.length }, (_, i) => 2 * list[i >> 1] + (i & 1));
  return {
    size: 2 * nodes.size,
    order: twice(nodes.order),
    count: nodes.count,
    first: nodes.first.map((x) => 2 * x),
    rowStart: nodes.rowStart.map((x) => 2 * x),
    rows: twice(nodes.rows),
    parent: nodes.parent,
  };
}

/** Row of each entry above the diagonal, by column, in the order of elimination. */
function upperColumns(pattern: Pattern, order: Uint32Array): { start: Uint32Array; row: Uint32Array } {
  const { low, high } = permutedEntries(pattern, order);
  const { start, items } = bucket(high, pattern.size);
  return { start, row: items.map((k) => low[k]) };
}

/** Smaller and greater index of every entry of the pattern, in the order of elimination. */
export function permutedEntries(
  pattern: Pattern,
  order: Uint32Array,
): { low: Uint32Array; high: Uint32Array } {
  const n = pattern.size;
  const position = new Uint32Array(n);
  for (let k = 0; k < n; k++) position[order[k]] = k;
  const low = new Uint32Array(pattern.row.length);
  const high = new Uint32Array(pattern.row.length);
  for (let j = 0; j < n; j++) {
    for (let k = pattern.columnStart[j]; k < pattern.columnStart[j + 1]; k++) {
      const i = position[pattern.row[k]];
      low[k] = Math.min(i, position[j]);
      high[k] = Math.max(i, position[j]);
    }
  }
  return { low, high };
}

function eliminationTree(n: number, upper: { start: Uint32Array; row: Uint32Array }): Int32Array {
  const parent = new Int32Array(n).fill(-1);
  const ancestor = new Int32Array(n).fill(-1);
  for (let k = 0; k < n; k++) {
    for (let p = upper.start[k]; p < upper.start[k + 1]; p++) {
      for (let i = upper.row[p]; i < k; ) {
        const up = ancestor[i];
        ancestor[i] = k;
        if (up < 0) {
          parent[i] = k;
          break;
        }
        i = up;
      }
    }
  }
  return parent;
}

/** Nodes of a forest, children before parents, each subtree in one run. */
function postorder(parent: Int32Array): Uint32Array {
  const n = parent.length;
  const firstChild = new Int32Array(n).fill(-1);
  const nextSibling = new Int32Array(n).fill(-1);
  for (let i = n - 1; i >= 0; i--) {
    if (parent[i] < 0) continue;
    nextSibling[i] = firstChild[parent[i]];
    firstChild[parent[i]] = i;
  }
  const post = new Uint32Array(n);
  const stack = new Int32Array(n);
  let done = 0;
  for (let root = 0; root < n; root++) {
    if (parent[root] >= 0) continue;
    let top = 0;
    stack[top++] = root;
    while (top > 0) {
      const i = stack[top - 1];
      const child = firstChild[i];
      if (child >= 0) {
        firstChild[i] = nextSibling[child];
        stack[top++] = child;
      } else {
        post[done++] = i;
        top--;
      }
    }
  }
  return post;
}

/** Entries of each column of the factor, the diagonal among them. */
function columnCounts(
  n: number,
  upper: { start: Uint32Array; row: Uint32Array },
  parent: Int32Array,
): Uint32Array {
  const counts = new Uint32Array(n).fill(1);
  const mark = new Int32Array(n).fill(-1);
  for (let k = 0; k < n; k++) {
    mark[k] = k;
    for (let p = upper.start[k]; p < upper.start[k + 1]; p++) {
      for (let i = upper.row[p]; mark[i] !== k; i = parent[i]) {
        mark[i] = k;
        counts[i]++;
      }
    }
  }
  return counts;
}

/** Entries of a panel of `columns` pivots with `height` rows from its first on. */
const panelEntries = (columns: number, height: number): number =>
  columns * height - (columns * (columns - 1)) / 2;

/** How large a part of a panel may be zeros: small panels more, since calls cost more than sums there. */
const mayBeZero = (columns: number): number =>
  columns <= 8 ? 1 : columns <= 24 ? 0.5 : columns <= 64 ? 0.12 : 0.05;

/** Columns eliminated together: those of equal structure, then children merged into the parents right after them. */
function amalgamated(
  parent: Int32Array,
  counts: Uint32Array,
): { first: Uint32Array; columnNode: Uint32Array } {
  const n = parent.length;
  // A stack of finished supernodes; the last may be the child that lies right before the next.
  const firsts: number[] = [];
  const heights: number[] = [];
  const zeros: number[] = [];
  for (let j = 0; j < n; j++) {
    let first = j;
    let height = counts[j];
    let empty = 0;
    while (firsts.length > 0) {
      const top = firsts.length - 1;
      const width = first - firsts[top];
      if (parent[first - 1] < first || parent[first - 1] > j) break;
      const columns = j - first + 1;
      const merged = width + columns;
      const total = panelEntries(merged, width + height);
      const nothing =
        empty + zeros[top] + total - panelEntries(width, heights[top]) - panelEntries(columns, height);
      if (nothing > mayBeZero(merged) * total) break;
      empty = nothing;
      height += width;
      first = firsts[top];
      firsts.pop();
      heights.pop();
      zeros.pop();
    }
    firsts.push(first);
    heights.push(height);
    zeros.push(empty);
  }
  const first = Uint32Array.from([...firsts, n]);
  const columnNode = new Uint32Array(n);
  for (let s = 0; s + 1 < first.length; s++) columnNode.fill(s, first[s], first[s + 1]);
  return { first, columnNode };
}

/** Rows below each supernode: those of its own columns and of its children. */
function structures(pattern: Pattern, order: Uint32Array, first: Uint32Array, parent: Int32Array) {
  const n = pattern.size;
  const count = first.length - 1;
  const { low, high } = permutedEntries(pattern, order);
  const columns = bucket(low, n);
  const children = bucket(
    parent.length > 0 ? Uint32Array.from(parent, (p) => (p < 0 ? count : p)) : new Uint32Array(0),
    count + 1,
  );
  const mark = new Int32Array(n).fill(-1);
  const lists: Uint32Array[] = [];
  const rowStart = new Uint32Array(count + 1);
  const found = new Uint32Array(n);
  for (let s = 0; s < count; s++) {
    let length = 0;
    const end = first[s + 1];
    for (let k = columns.start[first[s]]; k < columns.start[end]; k++) {
      const i = high[columns.items[k]];
      if (i >= end && mark[i] !== s) {
        mark[i] = s;
        found[length++] = i;
      }
    }
    for (let c = children.start[s]; c < children.start[s + 1]; c++) {
      for (const i of lists[children.items[c]]) {
        if (i >= end && mark[i] !== s) {
          mark[i] = s;
          found[length++] = i;
        }
      }
    }
    lists.push(found.slice(0, length).sort());
    rowStart[s + 1] = rowStart[s] + length;
  }
  const rows = new Uint32Array(rowStart[count]);
  lists.forEach((list, s) => {
    rows.set(list, rowStart[s]);
  });
  return { rowStart, rows };
}
