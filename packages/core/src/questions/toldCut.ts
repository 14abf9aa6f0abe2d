import { type HemDocument, topologyOf } from '../document/document.ts';
import { findEdge } from '../mesh/connectivity.ts';
import type { BestCut } from '../seams/bestCut.ts';
import type { Shell } from '../surface/shell.ts';

/** A cut that was tried, along edges of the model, and the stretch of its shell after it. */
export interface ToldCut extends Omit<BestCut, 'edges'> {
  readonly edges: readonly number[];
}

export function toldCut({ model }: HemDocument, { vertexCorner }: Shell, cut: BestCut): ToldCut {
  const { mesh, connectivity } = topologyOf(model);
  const end = (i: number): number => mesh.cornerVertex[vertexCorner[cut.edges[i]]];
  const edges = Array.from({ length: cut.edges.length / 2 }, (_, i) =>
    findEdge(connectivity, end(2 * i), end(2 * i + 1)),
  );
  return { ...cut, edges };
}
