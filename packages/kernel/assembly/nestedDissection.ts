// Nested dissection (George 1973) down to small pieces, which minimum degree orders with the separators round them in
// view (as in the hybrid of Hendrickson and Rothberg 1998).
import { minimumDegree } from "./minimumDegree";
import { at, bytes, held, put, release, reserve, reserveFilled, stopped } from "./memory";
import { Graph, makeGraph, SEPARATOR, separate } from "./separator";

/** Pieces of so few vertices are left to minimum degree. */
const LEAF: i32 = 2000;

// Vertices, each piece in one run, its separator at the run's end once it has been split.
let list: usize = 0;
let inSeparator: usize = 0;
let local: usize = 0;

/** The piece list[from … to] as a graph of its own. */
function extract(start: usize, adjacency: usize, from: i32, to: i32): Graph {
  let links = 0;
  for (let i = from; i < to; i++) {
    const v = at(list, i);
    put(local, v, i - from);
    links += at(start, v + 1) - at(start, v);
  }
  const graph = makeGraph(to - from, links);
  let end = 0;
  for (let i = from; i < to; i++) {
    const v = at(list, i);
    put(graph.start, i - from, end);
    put(graph.weight, i - from, 1);
    for (let k = at(start, v), last = at(start, v + 1); k < last; k++) {
      const u = at(local, at(adjacency, k));
      // `local` of vertices elsewhere is stale: it counts only where the list agrees.
      if (u >= to - from || at(list, from + u) != at(adjacency, k)) continue;
      put(graph.adjacency, end, u);
      put(graph.edgeWeight, end++, 1);
    }
  }
  put(graph.start, to - from, end);
  return graph;
}

/** Splits list[from … to] and what comes of it; false when stopped. */
function dissect(start: usize, adjacency: usize, from: i32, to: i32): bool {
  if (to - from <= LEAF) return true;
  if (stopped()) return false;
  const mark = held();
  const size = to - from;
  const sides = reserve((size + 3) >> 2);
  separate(extract(start, adjacency, from, to), sides);
  const sorted = reserve(size);
  let middle = from;
  let end = 0;
  for (let s: u8 = 0; s <= SEPARATOR; s++) {
    for (let i = 0; i < size; i++) if (load<u8>(sides + i) == s) put(sorted, end++, at(list, from + i));
    if (s == 0) middle = from + end;
    else if (s == 1) to = from + end;
  }
  memory.copy(list + bytes(from), sorted, bytes(size));
  release(mark);
  for (let i = to; i < from + size; i++) store<u8>(inSeparator + at(list, i), 1);
  if (to == from + size && (middle == from || middle == to)) return true; // could not be split
  return dissect(start, adjacency, from, middle) && dissect(start, adjacency, middle, to);
}

/**
 * @param order  receives the vertices in the order of elimination
 * @returns false when stopped
 */
export function nestedDissection(n: i32, start: usize, adjacency: usize, order: usize): bool {
  const mark = held();
  list = reserve(n);
  local = reserveFilled(n, 0);
  inSeparator = reserveFilled((n + 3) >> 2, 0);
  for (let v = 0; v < n; v++) put(list, v, v);
  let done = -1;
  if (dissect(start, adjacency, 0, n)) done = minimumDegree(n, start, adjacency, inSeparator, order);
  // Inner separators lie before those that made their pieces.
  if (done >= 0) {
    for (let i = 0; i < n; i++) if (load<u8>(inSeparator + at(list, i))) put(order, done++, at(list, i));
  }
  release(mark);
  return done == n;
}
