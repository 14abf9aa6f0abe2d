// A small set of vertices that splits a graph in two halves of about equal weight, by the multilevel method (Karypis
// and Kumar 1998): the graph is made coarser by matching neighbours, the coarsest is split by growing one half, and
// the separator is refined on the way back by moving its vertices to either side (Fiduccia and Mattheyses 1982, in the
// vertex form of Ashcraft and Liu 1997).
import { at, bytes, held, put, release, reserve, reserveFilled } from "./memory";

const NONE: i32 = -1;
/** Sides of a vertex. */
export const SEPARATOR: u8 = 2;
const COARSEST: i32 = 80;
const SEEDS: i32 = 6;
const PASSES: i32 = 6;
/** The heavier half may have this part of the weight. */
const MOST: f64 = 0.6;

/** A graph in memory: start, adjacency, edge weights, vertex weights. Words of a level, so that levels can be listed. */
@unmanaged
export class Graph {
  size: i32 = 0;
  start: usize = 0;
  adjacency: usize = 0;
  edgeWeight: usize = 0;
  weight: usize = 0;
  /** Vertex of the next coarser graph. */
  coarse: usize = 0;
}

/** A graph with room for `size` vertices and `links` directed edges. */
export function makeGraph(size: i32, links: i32): Graph {
  const graph = changetype<Graph>(reserve(<i32>(offsetof<Graph>() >> 2)));
  graph.size = size;
  graph.start = reserve(size + 1);
  graph.adjacency = reserve(links);
  graph.edgeWeight = reserve(links);
  graph.weight = reserve(size);
  graph.coarse = 0;
  return graph;
}

/** Joins each vertex with its heaviest unmatched neighbour, the lighter among equals. */
function coarsen(fine: Graph): Graph {
  const n = fine.size;
  const coarse = reserveFilled(n, 0xff);
  const partner = reserve(n);
  let count = 0;
  for (let v = 0; v < n; v++) {
    if (at(coarse, v) != NONE) continue;
    let best = v;
    let heaviest = 0;
    for (let k = at(fine.start, v), end = at(fine.start, v + 1); k < end; k++) {
      const u = at(fine.adjacency, k);
      const w = at(fine.edgeWeight, k);
      if (at(coarse, u) != NONE || w < heaviest) continue;
      if (w > heaviest || at(fine.weight, u) < at(fine.weight, best)) {
        heaviest = w;
        best = u;
      }
    }
    put(coarse, v, count);
    put(coarse, best, count);
    put(partner, count++, best);
  }
  fine.coarse = coarse;

  const graph = makeGraph(count, at(fine.start, n));
  const placeOf = reserveFilled(count, 0xff);
  let end = 0;
  let made = 0;
  for (let v = 0; v < n; v++) {
    if (at(coarse, v) != made) continue;
    const first = end;
    put(graph.start, made, first);
    const other = at(partner, made);
    put(graph.weight, made, at(fine.weight, v) + (other == v ? 0 : at(fine.weight, other)));
    let member = v;
    while (true) {
      for (let k = at(fine.start, member), last = at(fine.start, member + 1); k < last; k++) {
        const u = at(coarse, at(fine.adjacency, k));
        if (u == made) continue;
        const known = at(placeOf, u);
        if (known >= first) put(graph.edgeWeight, known, at(graph.edgeWeight, known) + at(fine.edgeWeight, k));
        else {
          put(placeOf, u, end);
          put(graph.adjacency, end, u);
          put(graph.edgeWeight, end++, at(fine.edgeWeight, k));
        }
      }
      if (member == other) break;
      member = other;
    }
    made++;
  }
  put(graph.start, count, end);
  return graph;
}

// The state of refining one graph.
let side: usize = 0; // a byte a vertex
let pulled: usize = 0; // for separator vertices: weight drawn in by a move to side 0, and to side 1
let locked: usize = 0; // a byte a vertex
let sideWeight0: i32 = 0;
let sideWeight1: i32 = 0;
let separatorWeight: i32 = 0;
// A heap of moves: gain, then 2 × vertex + side. Entries whose gain has changed since are skipped when met.
let heap: usize = 0;
let heapSize: i32 = 0;
let heapRoom: i32 = 0;

function pushMove(gain: i32, move: i32): void {
  if (heapSize == heapRoom) return;
  let i = heapSize++;
  while (i > 0) {
    const up = (i - 1) >> 1;
    if (at(heap, 2 * up) >= gain) break;
    put(heap, 2 * i, at(heap, 2 * up));
    put(heap, 2 * i + 1, at(heap, 2 * up + 1));
    i = up;
  }
  put(heap, 2 * i, gain);
  put(heap, 2 * i + 1, move);
}

function popMove(): void {
  heapSize--;
  const gain = at(heap, 2 * heapSize);
  const move = at(heap, 2 * heapSize + 1);
  let i = 0;
  while (true) {
    let down = 2 * i + 1;
    if (down >= heapSize) break;
    if (down + 1 < heapSize && at(heap, 2 * down + 2) > at(heap, 2 * down)) down++;
    if (at(heap, 2 * down) <= gain) break;
    put(heap, 2 * i, at(heap, 2 * down));
    put(heap, 2 * i + 1, at(heap, 2 * down + 1));
    i = down;
  }
  put(heap, 2 * i, gain);
  put(heap, 2 * i + 1, move);
}

@inline function sideOf(v: i32): u8 {
  return load<u8>(side + v);
}

@inline function offer(graph: Graph, v: i32): void {
  const w = at(graph.weight, v);
  pushMove(w - at(pulled, 2 * v), 2 * v);
  pushMove(w - at(pulled, 2 * v + 1), 2 * v + 1);
}

/** Sums what a move of separator vertex v to each side would draw in from the other. */
function sumPulled(graph: Graph, v: i32): void {
  let to0 = 0;
  let to1 = 0;
  for (let k = at(graph.start, v), end = at(graph.start, v + 1); k < end; k++) {
    const u = at(graph.adjacency, k);
    if (sideOf(u) == 1) to0 += at(graph.weight, u);
    else if (sideOf(u) == 0) to1 += at(graph.weight, u);
  }
  put(pulled, 2 * v, to0);
  put(pulled, 2 * v + 1, to1);
}

function weigh(graph: Graph): void {
  sideWeight0 = 0;
  sideWeight1 = 0;
  separatorWeight = 0;
  for (let v = 0; v < graph.size; v++) {
    const w = at(graph.weight, v);
    if (sideOf(v) == 0) sideWeight0 += w;
    else if (sideOf(v) == 1) sideWeight1 += w;
    else separatorWeight += w;
  }
}

/** Less is better: the separator's weight, and more for halves out of balance. */
@inline function cost(): f64 {
  const total = <f64>(sideWeight0 + sideWeight1);
  const heavy = <f64>max(sideWeight0, sideWeight1);
  const over = total > 0 ? heavy / total : 1;
  return <f64>separatorWeight * (1 + 0.5 * (over - 0.5)) + (over > MOST ? (over - MOST) * total : 0);
}

/** Changes a vertex's side, keeping the weights, and logs what it was. */
@inline function change(graph: Graph, v: i32, to: u8, log: usize, entries: i32): i32 {
  const w = at(graph.weight, v);
  const from = sideOf(v);
  if (from == 0) sideWeight0 -= w;
  else if (from == 1) sideWeight1 -= w;
  else separatorWeight -= w;
  if (to == 0) sideWeight0 += w;
  else if (to == 1) sideWeight1 += w;
  else separatorWeight += w;
  store<u8>(side + v, to);
  put(log, 2 * entries, v);
  put(log, 2 * entries + 1, from);
  return entries + 1;
}

/** Moves separator vertices, best first, past small hills; keeps the best state met. */
function refine(graph: Graph): void {
  const mark = held();
  const n = graph.size;
  pulled = reserve(2 * n);
  locked = reserve((n + 3) >> 2);
  const logRoom = 4 * n + 64;
  const log = reserve(2 * logRoom);
  heapRoom = 8 * n + 256;
  heap = reserve(2 * heapRoom);
  weigh(graph);
  for (let pass = 0; pass < PASSES; pass++) {
    memory.fill(locked, 0, n);
    heapSize = 0;
    for (let v = 0; v < n; v++) {
      if (sideOf(v) != SEPARATOR) continue;
      sumPulled(graph, v);
      offer(graph, v);
    }
    const before = cost();
    let best = before;
    let entries = 0;
    let bestEntries = 0;
    let movesSince = 0;
    const patience = 30 + n / 200;
    while (heapSize > 0 && movesSince < patience) {
      const gain = at(heap, 0);
      const move = at(heap, 1);
      popMove();
      const v = move >> 1;
      const to = <u8>(move & 1);
      if (sideOf(v) != SEPARATOR || load<u8>(locked + v)) continue;
      if (at(graph.weight, v) - at(pulled, move) != gain) continue;
      const degree = at(graph.start, v + 1) - at(graph.start, v);
      if (entries + degree + 1 > logRoom) break;
      // A move that tips the balance further than allowed is left for another time.
      const grown = (to == 0 ? sideWeight0 : sideWeight1) + at(graph.weight, v);
      if (<f64>grown > MOST * <f64>(sideWeight0 + sideWeight1 + separatorWeight)) continue;

      store<u8>(locked + v, 1);
      entries = change(graph, v, to, log, entries);
      const other = 1 - to;
      for (let k = at(graph.start, v), end = at(graph.start, v + 1); k < end; k++) {
        const u = at(graph.adjacency, k);
        if (sideOf(u) == SEPARATOR) {
          const slot = 2 * u + <i32>other;
          put(pulled, slot, at(pulled, slot) + at(graph.weight, v));
          if (!load<u8>(locked + u)) pushMove(at(graph.weight, u) - at(pulled, slot), slot);
        } else if (sideOf(u) == other) {
          entries = change(graph, u, SEPARATOR, log, entries);
          sumPulled(graph, u);
          if (!load<u8>(locked + u)) offer(graph, u);
          for (let j = at(graph.start, u), last = at(graph.start, u + 1); j < last; j++) {
            const y = at(graph.adjacency, j);
            if (sideOf(y) != SEPARATOR || y == u) continue;
            const slot = 2 * y + <i32>to;
            put(pulled, slot, at(pulled, slot) - at(graph.weight, u));
            if (!load<u8>(locked + y)) pushMove(at(graph.weight, y) - at(pulled, slot), slot);
          }
        }
      }
      movesSince++;
      const now = cost();
      if (now < best) {
        best = now;
        bestEntries = entries;
        movesSince = 0;
      }
    }
    while (entries > bestEntries) {
      entries--;
      store<u8>(side + at(log, 2 * entries), <u8>at(log, 2 * entries + 1));
    }
    weigh(graph);
    if (best >= before) break;
  }
  release(mark);
}

/** Grows side 0 in rings from `seed` to half the weight; its outermost ring is the separator. */
function grow(graph: Graph, seed: i32, queue: usize): void {
  const n = graph.size;
  memory.fill(side, 1, n);
  let total = 0;
  for (let v = 0; v < n; v++) total += at(graph.weight, v);
  let head = 0;
  let tail = 0;
  let grown = 0;
  let next = 0;
  put(queue, tail++, seed);
  store<u8>(side + seed, SEPARATOR);
  while (2 * grown < total) {
    if (head == tail) {
      // The graph falls apart: go on in another piece.
      while (next < n && sideOf(next) != 1) next++;
      if (next == n) break;
      put(queue, tail++, next);
      store<u8>(side + next, SEPARATOR);
    }
    const v = at(queue, head++);
    store<u8>(side + v, 0);
    grown += at(graph.weight, v);
    for (let k = at(graph.start, v), end = at(graph.start, v + 1); k < end; k++) {
      const u = at(graph.adjacency, k);
      if (sideOf(u) != 1) continue;
      store<u8>(side + u, SEPARATOR);
      put(queue, tail++, u);
    }
  }
}

/** Splits the coarsest graph: the best of several growths, the seed of each the last vertex reached by the one before. */
function splitCoarsest(graph: Graph): void {
  const mark = held();
  const n = graph.size;
  const queue = reserve(n);
  const kept = reserve((n + 3) >> 2);
  let best = Infinity;
  let seed = 0;
  for (let trial = 0; trial < SEEDS; trial++) {
    grow(graph, seed, queue);
    refine(graph);
    const now = cost();
    if (now < best) {
      best = now;
      memory.copy(kept, side, n);
    }
    // Seeds far from each other: the end of the graph first, then spread over the rest.
    seed = trial == 0 ? at(queue, n > 1 ? lastReached(graph, seed, queue) : 0) : <i32>((<u32>seed * 7 + 13 * <u32>trial) % <u32>n);
  }
  memory.copy(side, kept, n);
  release(mark);
}

/** Place in `queue` of the vertex farthest from `seed` by breadth-first search. */
function lastReached(graph: Graph, seed: i32, queue: usize): i32 {
  const mark = held();
  const seen = reserveFilled((graph.size + 3) >> 2, 0);
  let tail = 0;
  put(queue, tail++, seed);
  store<u8>(seen + seed, 1);
  for (let head = 0; head < tail; head++) {
    const v = at(queue, head);
    for (let k = at(graph.start, v), end = at(graph.start, v + 1); k < end; k++) {
      const u = at(graph.adjacency, k);
      if (load<u8>(seen + u)) continue;
      store<u8>(seen + u, 1);
      put(queue, tail++, u);
    }
  }
  release(mark);
  return tail - 1;
}

/**
 * Marks each vertex of the graph 0, 1 or SEPARATOR in `sides`, a byte each; no edge joins a 0 to a 1.
 */
export function separate(graph: Graph, sides: usize): void {
  const mark = held();
  // Levels, finest first, as a list of addresses.
  const levels = reserve(64);
  let depth = 0;
  put(levels, 0, <i32>changetype<usize>(graph));
  while (depth < 63) {
    const fine = changetype<Graph>(<usize>at(levels, depth));
    if (fine.size <= COARSEST) break;
    const coarse = coarsen(fine);
    if (coarse.size > fine.size - fine.size / 10) break;
    put(levels, ++depth, <i32>changetype<usize>(coarse));
  }
  const first = reserve((graph.size + 3) >> 2);
  side = depth == 0 ? sides : first;
  let spare = depth == 0 ? first : sides;
  splitCoarsest(changetype<Graph>(<usize>at(levels, depth)));
  while (depth > 0) {
    const fine = changetype<Graph>(<usize>at(levels, --depth));
    for (let v = 0; v < fine.size; v++) store<u8>(spare + v, load<u8>(side + at(fine.coarse, v)));
    const done = side;
    side = spare;
    spare = done;
    refine(fine);
  }
  if (side != sides) memory.copy(sides, side, graph.size);
  release(mark);
}
