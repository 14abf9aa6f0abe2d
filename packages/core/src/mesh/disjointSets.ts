/** Disjoint sets with path halving and union by index (Tarjan 1975): the root is always the smallest member. */
export interface DisjointSets {
  readonly parent: Uint32Array;
}

export function disjointSets(count: number): DisjointSets {
  const parent = new Uint32Array(count);
  for (let i = 0; i < count; i++) parent[i] = i;
  return { parent };
}

export function findRoot({ parent }: DisjointSets, item: number): number {
  while (parent[item] !== item) {
    parent[item] = parent[parent[item]];
    item = parent[item];
  }
  return item;
}

/** @returns whether they were apart */
export function unite(sets: DisjointSets, a: number, b: number): boolean {
  const rootA = findRoot(sets, a);
  const rootB = findRoot(sets, b);
  if (rootA < rootB) sets.parent[rootB] = rootA;
  else sets.parent[rootA] = rootB;
  return rootA !== rootB;
}

/** Consecutive numbers for the sets, in order of their smallest member. */
export function numberSets(sets: DisjointSets): { label: Uint32Array; count: number } {
  const label = new Uint32Array(sets.parent.length);
  let count = 0;
  for (let i = 0; i < label.length; i++) {
    const root = findRoot(sets, i);
    label[i] = root === i ? count++ : label[root];
  }
  return { label, count };
}
