import type { Connectivity } from '../mesh/connectivity.ts';

/** Edges one after the other, with the vertices they run through: one more than edges, the first again at the end where it is closed. */
export interface Run {
  readonly edges: readonly number[];
  readonly vertices: readonly number[];
  readonly closed: boolean;
}

/**
 * Some edges as runs, each as long as it goes on without a fork.
 *
 * @param isFixed  whether a vertex ends every run
 */
export function runsOfEdges(
  { edgeVertices }: Pick<Connectivity, 'edgeVertices'>,
  edges: Iterable<number>,
  isFixed: (vertex: number) => boolean = () => false,
): Run[] {
  const at = new Map<number, number[]>();
  const left = new Set(edges);
  for (const e of left) for (const v of ends(e)) at.set(v, [...(at.get(v) ?? []), e]);
  const isThrough = (v: number) => at.get(v)?.length === 2 && !isFixed(v);
  const runs: Run[] = [];
  // From ends and forks first; what is left then is closed.
  for (const start of [...at.keys()].filter((v) => !isThrough(v)))
    for (const e of at.get(start) as number[]) if (left.has(e)) runs.push(follow(e, start));
  for (const e of left) runs.push(follow(e, edgeVertices[2 * e]));
  return runs;

  function ends(e: number): [number, number] {
    return [edgeVertices[2 * e], edgeVertices[2 * e + 1]];
  }

  function follow(first: number, start: number): Run {
    const run: number[] = [];
    const vertices = [start];
    let v = start;
    for (let e: number | undefined = first; e !== undefined; ) {
      left.delete(e);
      run.push(e);
      v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
      vertices.push(v);
      e = isThrough(v) ? at.get(v)?.find((other) => left.has(other)) : undefined;
    }
    return { edges: run, vertices, closed: v === start && run.length > 1 };
  }
}
