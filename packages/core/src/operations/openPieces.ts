import Joi from 'joi';
import { shellOf, shellsOf, topologyOf } from '../document/document.ts';
import type { Patch } from '../document/patch.ts';
import { openPiece } from '../seams/openPiece.ts';
import { facesOfShell } from '../surface/shells.ts';
import { verdictOf } from '../surface/verdict.ts';
import type { Operation } from './operation.ts';
import { type WhichShells, whichShells } from './schemas.ts';
import { changeSeams } from './seamChange.ts';
import { chosenShells, shellsLabel } from './shellChoice.ts';

export interface OpenPiecesParams {
  readonly shells: WhichShells;
}

/** Pieces that cannot lie flat as they are get the cuts that open them; the others are left alone. */
export const openPieces: Operation<OpenPiecesParams> = {
  name: 'open-pieces',
  schema: Joi.object({ shells: whichShells }),
  label: ({ shells }) => `Cut open ${shellsLabel(shells)}`,
  run(document, { shells: which }): Patch {
    const { mesh, links } = topologyOf(document.model);
    const shells = shellsOf(document);
    const edges = chosenShells(document, which).flatMap((s) => {
      const { kind } = verdictOf(shellOf(document, s));
      return kind === 'closed' || kind === 'handle' || kind === 'tube'
        ? openPiece(mesh, links, document.seams, facesOfShell(shells, s))
        : [];
    });
    return changeSeams(document, edges, 1);
  },
};
