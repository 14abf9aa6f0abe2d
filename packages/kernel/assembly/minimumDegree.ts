// Approximate minimum degree ordering on a quotient graph (Amestoy, Davis, Duff 1996), with supervariables, mass
// elimination and aggressive absorption.
//
// Each vertex is a variable, an element (an eliminated variable that stands for the clique it left) or gone, merged
// into another. The list of a variable holds its elements first, then its variables; the list of an element its
// variables. All lists live in one pool, compacted when it is full.
import { at, bytes, held, put, release, reserve, reserveFilled, stopped } from "./memory";

const NONE: i32 = -1;

// The quotient graph; one at a time.
let size: i32 = 0;
let pool: usize = 0;
let poolEnd: i32 = 0; // first free word
let place: usize = 0; // of each list in the pool; NONE when the vertex is gone
let length: usize = 0; // of each list
let elements: usize = 0; // how many of a variable's list are elements
let weight: usize = 0; // vertices a variable stands for; 0 when gone; negative while in the new element
let degree: usize = 0; // approximate for variables, |Le| for elements
let outside: usize = 0; // |Le \ Lp| + stamp for elements touched by the new one; 0 when the element is gone
let stamp: i32 = 0;
let frozen: usize = 0;
// Variables by degree, in doubly linked lists; a variable in no list is frozen or in the new element.
let head: usize = 0;
let next: usize = 0;
let previous: usize = 0;
let least: i32 = 0;
// Vertices merged into a variable, in a chain.
let chainNext: usize = 0;
let chainEnd: usize = 0;

function insert(v: i32, d: i32): void {
  const first = at(head, d);
  if (first != NONE) put(previous, first, v);
  put(next, v, first);
  put(previous, v, NONE);
  put(head, d, v);
  put(degree, v, d);
  if (d < least) least = d;
}

function remove(v: i32): void {
  const after = at(next, v);
  const before = at(previous, v);
  if (after != NONE) put(previous, after, before);
  if (before != NONE) put(next, before, after);
  else put(head, at(degree, v), after);
}

function merge(into: i32, v: i32): void {
  put(chainNext, at(chainEnd, into), v);
  put(chainEnd, into, at(chainEnd, v));
  put(weight, v, 0);
  put(place, v, NONE);
}

/** Moves all lists to the front of the pool. */
function compact(): void {
  // The first word of each list goes into `place`, and the list's owner, marked by its sign, takes its place.
  for (let v = 0; v < size; v++) {
    const p = at(place, v);
    if (p < 0 || at(length, v) == 0) continue;
    put(place, v, at(pool, p));
    put(pool, p, -2 - v);
  }
  let to = 0;
  for (let from = 0; from < poolEnd; ) {
    const owner = -2 - at(pool, from++);
    if (owner < 0) continue;
    put(pool, to, at(place, owner));
    put(place, owner, to++);
    for (let k = at(length, owner) - 1; k > 0; k--) put(pool, to++, at(pool, from++));
  }
  poolEnd = to;
}

/** Puts variable v into the element being made at `end`, unless it is there; returns the new end. */
@inline function take(v: i32, end: i32): i32 {
  const w = at(weight, v);
  if (w <= 0) return end;
  put(weight, v, -w);
  if (!load<u8>(frozen + v)) remove(v);
  put(pool, end, v);
  return end + 1;
}

/** Makes variable p an element: the union of its variables and of its elements' variables. */
function makeElement(p: i32): void {
  const own = at(place, p);
  const elementCount = at(elements, p);
  const end = own + at(length, p);
  put(weight, p, -at(weight, p));
  // Without elements the list shrinks in place.
  const first = elementCount == 0 ? own : poolEnd;
  let last = first;
  for (let k = own; k < own + elementCount; k++) {
    const e = at(pool, k);
    const from = at(place, e);
    for (let j = from, to = from + at(length, e); j < to; j++) last = take(at(pool, j), last);
    put(place, e, NONE);
    put(outside, e, 0);
  }
  for (let k = own + elementCount; k < end; k++) last = take(at(pool, k), last);
  if (elementCount != 0) poolEnd = last;
  put(place, p, first);
  put(length, p, last - first);
}

/** Notes |Le \ Lp| for every element e that shares a variable with the new one. */
function countOutside(first: i32, end: i32): void {
  for (let k = first; k < end; k++) {
    const v = at(pool, k);
    const w = -at(weight, v);
    const from = at(place, v);
    for (let j = from, to = from + at(elements, v); j < to; j++) {
      const e = at(pool, j);
      const known = at(outside, e);
      if (known >= stamp) put(outside, e, known - w);
      else if (known != 0) put(outside, e, at(degree, e) + stamp - w);
    }
  }
}

/**
 * Prunes the list of v, a variable of the new element p, to what is not reached through p.
 *
 * @returns its approximate degree outside p; its list begins with p then
 */
function prune(v: i32, p: i32): i32 {
  const from = at(place, v);
  const middle = from + at(elements, v);
  const end = from + at(length, v);
  let d = 0;
  let to = from;
  for (let j = from; j < middle; j++) {
    const e = at(pool, j);
    const known = at(outside, e);
    if (known == 0) continue;
    if (known > stamp) {
      d += known - stamp;
      put(pool, to++, e);
    } else {
      // Nothing of it lies outside p: absorbed.
      put(place, e, NONE);
      put(outside, e, 0);
    }
  }
  const firstVariable = to;
  for (let j = middle; j < end; j++) {
    const u = at(pool, j);
    const w = at(weight, u);
    if (w <= 0) continue;
    d += w;
    put(pool, to++, u);
  }
  // Room for p is there: v was linked to p, or to an element now gone.
  put(pool, to, at(pool, firstVariable));
  put(pool, firstVariable, at(pool, from));
  put(pool, from, p);
  put(elements, v, firstVariable - from + 1);
  put(length, v, to - from + 1);
  return d;
}

/** Variables of the new element with equal lists become one; `bucket` chains those of one hash. */
function mergeAlike(first: i32, end: i32, bucket: usize, hash: usize, mark: usize, markNow: i32): i32 {
  for (let k = first; k < end; k++) {
    const start = at(pool, k);
    if (at(weight, start) >= 0 || load<u8>(frozen + start)) continue;
    let v = at(bucket, at(hash, start));
    put(bucket, at(hash, start), NONE);
    for (; v != NONE && at(next, v) != NONE; v = at(next, v)) {
      markNow++;
      const count = at(length, v);
      const from = at(place, v);
      for (let j = from + 1; j < from + count; j++) put(mark, at(pool, j), markNow);
      let before = v;
      for (let u = at(next, v); u != NONE; u = at(next, before)) {
        let same = at(length, u) == count && at(elements, u) == at(elements, v);
        const other = at(place, u);
        for (let j = other + 1; same && j < other + count; j++) same = at(mark, at(pool, j)) == markNow;
        if (same) {
          put(weight, v, at(weight, v) + at(weight, u));
          put(next, before, at(next, u));
          merge(v, u);
        } else before = u;
      }
    }
  }
  return markNow;
}

/**
 * @param start, adjacency  neighbours of each vertex, without itself
 * @param kept  a byte a vertex: 1 for those that are never eliminated here
 * @param order  receives the vertices in the order of elimination
 * @returns how many were eliminated; −1 when stopped
 */
export function minimumDegree(n: i32, start: usize, adjacency: usize, kept: usize, order: usize): i32 {
  const mark = held();
  size = n;
  frozen = kept;
  const links = at(start, n);
  const room = links + links / 4 + 2 * n + 16;
  pool = reserve(room);
  memory.copy(pool, adjacency, bytes(links));
  poolEnd = links;
  place = reserve(n);
  memory.copy(place, start, bytes(n));
  length = reserve(n);
  elements = reserveFilled(n, 0);
  weight = reserve(n);
  degree = reserve(n);
  outside = reserve(n);
  head = reserveFilled(n + 1, 0xff);
  next = reserveFilled(n, 0xff);
  previous = reserveFilled(n, 0xff);
  chainNext = reserveFilled(n, 0xff);
  chainEnd = reserve(n);
  const bucket = reserveFilled(n, 0xff);
  const hash = reserve(n);
  const seen = reserveFilled(n, 0);
  least = n;
  stamp = 2;
  let goal = 0;
  for (let v = 0; v < n; v++) {
    const count = at(start, v + 1) - at(start, v);
    put(length, v, count);
    put(weight, v, 1);
    put(outside, v, 1);
    put(chainEnd, v, v);
    put(degree, v, count);
    if (load<u8>(frozen + v)) continue;
    insert(v, count);
    goal++;
  }

  let done = 0;
  let largest = 0;
  let seenNow = 0;
  let pivots = 0;
  while (done < goal) {
    if ((pivots++ & 511) == 0 && stopped()) {
      done = -1;
      break;
    }
    while (at(head, least) == NONE) least++;
    const p = at(head, least);
    remove(p);
    if (poolEnd + at(degree, p) + 1 > room) compact();
    makeElement(p);
    const first = at(place, p);
    const end = first + at(length, p);
    let within = 0; // |Lp|
    for (let k = first; k < end; k++) within -= at(weight, at(pool, k));
    countOutside(first, end);

    for (let k = first; k < end; k++) {
      const v = at(pool, k);
      const d = prune(v, p);
      if (load<u8>(frozen + v)) continue;
      if (d == 0) {
        // Nothing beyond p: eliminating it now adds no fill.
        within += at(weight, v);
        merge(p, v);
        continue;
      }
      put(degree, v, min(at(degree, v), d));
      let sum: u32 = 0;
      for (let j = at(place, v) + 1, to = at(place, v) + at(length, v); j < to; j++) sum += at(pool, j);
      const h = <i32>(sum % <u32>n);
      put(hash, v, h);
      put(next, v, at(bucket, h));
      put(bucket, h, v);
    }
    seenNow = mergeAlike(first, end, bucket, hash, seen, seenNow);

    // What is left of the element; its variables go back to the lists of degrees.
    for (let v = p; v != NONE; v = at(chainNext, v)) put(order, done++, v);
    let to = first;
    for (let k = first; k < end; k++) {
      const v = at(pool, k);
      const w = -at(weight, v);
      if (w <= 0) continue;
      put(weight, v, w);
      put(pool, to++, v);
      if (!load<u8>(frozen + v)) insert(v, max(0, min(at(degree, v) + within - w, n - done - w)));
    }
    put(weight, p, 0);
    put(length, p, to - first);
    put(degree, p, within);
    if (end == poolEnd) poolEnd = to;
    if (to == first) {
      put(place, p, NONE);
      put(outside, p, 0);
    } else put(outside, p, 1);
    largest = max(largest, within);
    // `outside` holds at most stamp + largest now.
    stamp += largest + 1;
    if (stamp > 0x3fffffff) {
      for (let v = 0; v < n; v++) if (at(outside, v) != 0) put(outside, v, 1);
      stamp = 2;
    }
  }
  release(mark);
  return done;
}
