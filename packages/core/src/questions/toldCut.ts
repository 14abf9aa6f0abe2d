import { type HemDocument, topologyOf } from '../document/document.ts';
import { findEdge } from '../mesh/connectivity.ts';
import type { BestCut } from '../seams/bestCut.ts';
import type { Shell } from '../surface/shell.ts';

/** A cut that was tried, along edges of the model, and the stretch of its shell after it. */
export interface ToldCut extends Omit<BestCut, 'edges'> {
  readonly edges: readonly number[];
}

export const toldCut = (document: HemDocument, shell: Shell, cut: BestCut): ToldCut => ({
  ...cut,
  edges: edgesOfModel(document, shell, cut.edges),
});

/** @param ends  two shell vertices an edge */
export function edgesOfModel(
  { model }: HemDocument,
  { vertexCorner }: Shell,
  ends: Uint32Array,
): readonly number[] {
  const { mesh, connectivity } = topologyOf(model);
  const end = (i: number): number => mesh.cornerVertex[vertexCorner[ends[i]]];
  return Array.from({ length: ends.length / 2 }, (_, i) =>
    findEdge(connectivity, end(2 * i), end(2 * i + 1)),
  );
}
