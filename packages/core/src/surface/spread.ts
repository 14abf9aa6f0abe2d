import type { Connectivity } from '../mesh/connectivity.ts';

/**
 * Values known at some vertices, carried on to the others over edges, and evened out.
 *
 * @param values  per vertex, at least 0; less where it is not known
 * @param rounds  how often each goes half the way to the mean of its neighbours afterwards
 * @returns per vertex; 1 where no way leads to a known one
 */
export function spread(
  values: Float32Array,
  connectivity: Pick<Connectivity, 'edgeVertices'>,
  rounds: number,
): Float32Array {
  let now = values;
  while (now.some((value) => value < 0)) {
    const next = meanOfNeighbours(now, connectivity, false);
    if (next.every((value, v) => value === now[v])) return next.map((value) => (value < 0 ? 1 : value));
    now = next;
  }
  for (let i = 0; i < rounds; i++) now = meanOfNeighbours(now, connectivity, true);
  return now;
}

/** The mean over edges of what is known; known values stay, or are evened out too. */
function meanOfNeighbours(
  values: Float32Array,
  { edgeVertices }: Pick<Connectivity, 'edgeVertices'>,
  evenly: boolean,
): Float32Array {
  const sum = new Float32Array(values.length);
  const count = new Uint32Array(values.length);
  for (let i = 0; i < edgeVertices.length; i++) {
    const other = values[edgeVertices[i ^ 1]];
    if (other < 0) continue;
    sum[edgeVertices[i]] += other;
    count[edgeVertices[i]]++;
  }
  return values.map((value, v) => {
    if (count[v] === 0) return value;
    const mean = sum[v] / count[v];
    return value < 0 ? mean : evenly ? 0.5 * (value + mean) : value;
  });
}
