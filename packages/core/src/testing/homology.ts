import type { Connectivity } from '../mesh/connectivity.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';

/** Sets of edges as bits, 32 a word. */
type Chain = Uint32Array;

const chainOf = (edges: Iterable<number>, count: number): Chain => {
  const chain = new Uint32Array(Math.ceil(count / 32));
  for (const e of edges) chain[e >> 5] ^= 1 << (e & 31);
  return chain;
};

/**
 * How many of some loops are independent of one another and of the borders of faces, modulo 2, by elimination: the rank that they have in the
 * first homology of the surface (Munkres, Elements of Algebraic Topology 1984, § 11).
 */
export function homologyRank(
  mesh: Mesh,
  connectivity: Connectivity,
  loops: readonly (readonly number[])[],
): number {
  const edges = connectivity.isInterior.length;
  /** Rows by the edge that leads them. */
  const rows = new Map<number, Chain>();
  const reduce = (chain: Chain): boolean => {
    for (let word = 0; word < chain.length; word++) {
      while (chain[word] !== 0) {
        const lead = 32 * word + (31 - Math.clz32(chain[word] & -chain[word]));
        const row = rows.get(lead);
        if (!row) {
          rows.set(lead, chain);
          return true;
        }
        for (let i = word; i < chain.length; i++) chain[i] ^= row[i];
      }
    }
    return false;
  };
  for (let f = 0; f < faceCount(mesh); f++) {
    const around = connectivity.cornerEdge.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]);
    reduce(chainOf(around, edges));
  }
  return loops.filter((loop) => reduce(chainOf(loop, edges))).length;
}
