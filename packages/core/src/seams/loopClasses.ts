import type { SystemOfLoops } from './cutGraph.ts';

/**
 * A number for every edge such that, put together by exclusive or, those of a closed loop are 0 where it goes round nothing, and seldom otherwise:
 * the edges that cross each loop of a system have that loop's own number (a basis of the first cohomology by tree and cotree: Erickson,
 * Nayyeri 2011). A loop that has another's number goes round the same.
 *
 * @param edgeCount  of the surface
 */
export function loopClasses(
  { closing, crossed, sides, sideCount }: SystemOfLoops,
  edgeCount: number,
): Int32Array {
  const classOf = new Int32Array(edgeCount);
  /** What the loops put to each face, to be summed up from the leaves of the tree over faces to its root. */
  const sum = new Int32Array(sideCount);
  closing.forEach((e, i) => {
    classOf[e] = hash(i + 1);
    for (const side of sides(e)) sum[side] ^= classOf[e];
  });
  const beside = new Map<number, number[]>();
  const degree = new Uint32Array(sideCount);
  for (const e of crossed)
    for (const side of sides(e)) {
      degree[side]++;
      const list = beside.get(side);
      if (list) list.push(e);
      else beside.set(side, [e]);
    }
  const leaves = [...beside.keys()].filter((side) => degree[side] === 1);
  for (const leaf of leaves) {
    for (const e of beside.get(leaf) as number[]) {
      const [a, b] = sides(e);
      const other = a === leaf ? b : a;
      // The last of the two has nothing left to pass on.
      if (degree[other] === 0 || degree[leaf] === 0) continue;
      degree[leaf]--;
      classOf[e] = sum[leaf];
      sum[other] ^= sum[leaf];
      if (--degree[other] === 1) leaves.push(other);
    }
  }
  return classOf;
}

/** A number with bits all over it (the finaliser of MurmurHash3, Appleby). */
function hash(i: number): number {
  let h = Math.imul(i, 0x9e3779b9);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}
