import type { Pattern } from './sparse.ts';

/**
 * Approximate minimum degree ordering on a quotient graph (Amestoy, Davis, Duff 1996), with element
 * absorption and mass elimination, without supervariables.
 *
 * @returns the order of elimination: `order[k]` is the k-th row to be eliminated
 */
export function minimumDegree(pattern: Pattern): Uint32Array {
  const n = pattern.size;
  const neighbours = adjacency(pattern);
  const elements: number[][] = Array.from({ length: n }, () => []);
  const members: (number[] | undefined)[] = new Array(n);
  const alive = new Uint8Array(n).fill(1);
  const queue = degreeQueue(n);
  for (let i = 0; i < n; i++) queue.insert(i, neighbours[i].length);

  const mark = new Int32Array(n).fill(-1);
  const outside = new Int32Array(n);
  const outsideOf = new Int32Array(n).fill(-1);
  const order = new Uint32Array(n);
  let done = 0;
  while (done < n) {
    const p = queue.removeLeast();
    alive[p] = 0;
    order[done++] = p;

    // The front of p: everything it is linked to, directly or through an element it belongs to.
    mark[p] = p;
    const front: number[] = [];
    const gather = (list: readonly number[]) => {
      for (const i of list) {
        if (alive[i] && mark[i] !== p) {
          mark[i] = p;
          front.push(i);
        }
      }
    };
    gather(neighbours[p]);
    for (const e of elements[p]) {
      const list = members[e];
      if (list) gather(list);
      members[e] = undefined;
    }
    members[p] = front;

    // |Le \ Lp| of every element touching the front, counted down from |Le|.
    for (const i of front) {
      for (const e of elements[i]) {
        if (!members[e]) continue;
        if (outsideOf[e] !== p) {
          outsideOf[e] = p;
          members[e] = members[e]!.filter((j) => alive[j]);
          outside[e] = members[e]!.length;
        }
        outside[e]--;
      }
    }

    let kept = 0;
    for (const i of front) {
      const own = elements[i].filter((e) => members[e] && (outside[e] > 0 || outsideOf[e] !== p));
      neighbours[i] = neighbours[i].filter((j) => alive[j] && mark[j] !== p);
      let degree = front.length - 1 + neighbours[i].length;
      for (const e of own) degree += outside[e];
      if (own.length === 0 && neighbours[i].length === 0) {
        // Nothing beyond the front: eliminating it now adds no fill.
        queue.remove(i);
        alive[i] = 0;
        order[done++] = i;
        continue;
      }
      own.push(p);
      elements[i] = own;
      queue.move(i, Math.min(degree, n - done));
      front[kept++] = i;
    }
    front.length = kept;
    neighbours[p] = elements[p] = [];
  }
  return order;
}

function adjacency(pattern: Pattern): number[][] {
  const lists: number[][] = Array.from({ length: pattern.size }, () => []);
  for (let j = 0; j < pattern.size; j++) {
    for (let k = pattern.columnStart[j]; k < pattern.columnStart[j + 1]; k++) {
      const i = pattern.row[k];
      if (i === j) continue;
      lists[i].push(j);
      lists[j].push(i);
    }
  }
  return lists;
}

/** Rows by degree, in doubly linked lists, so that moving one costs nothing. */
function degreeQueue(n: number) {
  const head = new Int32Array(n + 1).fill(-1);
  const next = new Int32Array(n).fill(-1);
  const previous = new Int32Array(n).fill(-1);
  const degreeOf = new Int32Array(n);
  let least = 0;
  const insert = (i: number, degree: number) => {
    degreeOf[i] = degree;
    previous[i] = -1;
    next[i] = head[degree];
    if (head[degree] >= 0) previous[head[degree]] = i;
    head[degree] = i;
    if (degree < least) least = degree;
  };
  const remove = (i: number) => {
    if (previous[i] >= 0) next[previous[i]] = next[i];
    else head[degreeOf[i]] = next[i];
    if (next[i] >= 0) previous[next[i]] = previous[i];
  };
  return {
    insert,
    remove,
    move(i: number, degree: number) {
      remove(i);
      insert(i, degree);
    },
    removeLeast(): number {
      while (head[least] < 0) least++;
      const i = head[least];
      remove(i);
      return i;
    },
  };
}
