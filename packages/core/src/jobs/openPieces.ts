import { type HemDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { faceNormals } from '../mesh/normals.ts';
import { heedStop } from '../progress.ts';
import { edgeCosts } from '../seams/edgeCosts.ts';
import { openHidden } from '../seams/openHidden.ts';
import { openPiece } from '../seams/openPiece.ts';
import { facesOfShell } from '../surface/shells.ts';
import { verdictOf } from '../surface/verdict.ts';
import type { Job } from './job.ts';

const OPENABLE = new Set(['closed', 'handle', 'tube']);

export interface OpenTask {
  readonly document: HemDocument;
  readonly shells: readonly number[];
  /** How much is seen of every edge, 0 to 1. */
  readonly exposure: Float32Array;
}

/** How much an opening is to be hidden rather than short. */
const HIDDEN = 0.8;

/** Edges to cut so that the chosen shells can lie flat. */
export const openPieces: Job<'open-pieces', OpenTask, readonly number[]> = {
  name: 'open-pieces',
  run({ document, shells: chosen, exposure }, context) {
    const { mesh, links } = topologyOf(document.model);
    const shells = shellsOf(document);
    const normals = faceNormals(mesh);
    const costs = edgeCosts(mesh, links, normals, { hidden: HIDDEN, exposure, seams: document.seams });
    return chosen.flatMap((s, i) => {
      heedStop(context.signal);
      context.report({ fraction: i / chosen.length });
      const shell = shellOf(document, s);
      const verdict = verdictOf(shell);
      if (!OPENABLE.has(verdict.kind)) return [];
      const vertexOf = (v: number) => mesh.cornerVertex[shell.vertexCorner[v]];
      const edgeOf = (a: number, b: number) => findEdge(links, vertexOf(a), vertexOf(b));
      const hidden = openHidden(shell, verdict, (a, b) => costs[edgeOf(a, b)]);
      if (hidden.length > 0) return hidden.map(([a, b]) => edgeOf(a, b));
      return openPiece(mesh, links, normals, document.seams, facesOfShell(shells, s));
    });
  },
};
