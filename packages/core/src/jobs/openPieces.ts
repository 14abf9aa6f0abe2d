import { type HemDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { faceNormals } from '../mesh/normals.ts';
import { heedStop } from '../progress.ts';
import { openPiece } from '../seams/openPiece.ts';
import { facesOfShell } from '../surface/shells.ts';
import { verdictOf } from '../surface/verdict.ts';
import type { Job } from './job.ts';

const OPENABLE = new Set(['closed', 'handle', 'tube']);

/** Edges to cut so that the chosen shells can lie flat. */
export const openPieces: Job<
  'open-pieces',
  { readonly document: HemDocument; readonly shells: readonly number[] },
  readonly number[]
> = {
  name: 'open-pieces',
  run({ document, shells: chosen }, context) {
    const { mesh, links } = topologyOf(document.model);
    const shells = shellsOf(document);
    const normals = faceNormals(mesh);
    return chosen.flatMap((s, i) => {
      heedStop(context.signal);
      context.report({ fraction: i / chosen.length });
      if (!OPENABLE.has(verdictOf(shellOf(document, s)).kind)) return [];
      return openPiece(mesh, links, normals, document.seams, facesOfShell(shells, s));
    });
  },
};
