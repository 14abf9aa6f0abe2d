import { type HemDocument, shellOf, topologyOf } from '../document/document.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { faceNormals } from '../mesh/normals.ts';
import { heedStop } from '../progress.ts';
import { edgeCosts } from '../seams/edgeCosts.ts';
import { openShell } from '../seams/openShell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import type { Job } from './job.ts';

const OPENABLE = new Set(['closed', 'pinholes', 'withHandle', 'annulus']);

export interface OpenTask {
  readonly document: HemDocument;
  readonly shells: readonly number[];
  /** How much is seen of every edge, 0 to 1. */
  readonly visibility: Float32Array;
}

/** How much an opening is to be hidden rather than short. */
const HIDDEN = 0.8;

/** Edges to cut so that the chosen shells can lie flat, and how many handles among what they open are too small to be meant. */
export const openPieces: Job<
  'open-pieces',
  OpenTask,
  { readonly edges: readonly number[]; readonly smallHandles: number }
> = {
  name: 'open-pieces',
  run({ document, shells: chosen, visibility }, context) {
    const { mesh, connectivity } = topologyOf(document.model);
    const normals = faceNormals(mesh);
    const costs = edgeCosts(mesh, connectivity, normals, {
      hidden: HIDDEN,
      visibility,
      seams: document.seams,
    });
    const found: number[] = [];
    let small = 0;
    chosen.forEach((s, i) => {
      heedStop(context.signal);
      context.report({ fraction: i / chosen.length });
      const shell = shellOf(document, s);
      if (!OPENABLE.has(shellTopology(shell).kind)) return;
      const vertexOf = (v: number) => mesh.cornerVertex[shell.vertexCorner[v]];
      const edgeOf = (a: number, b: number) => findEdge(connectivity, vertexOf(a), vertexOf(b));
      const { edges, smallHandles } = openShell(shell, (a, b) => costs[edgeOf(a, b)]);
      for (const [a, b] of edges) found.push(edgeOf(a, b));
      small += smallHandles;
    });
    return { edges: found, smallHandles: small };
  },
};
