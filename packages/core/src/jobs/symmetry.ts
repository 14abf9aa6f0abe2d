import { type HemDocument, topologyOf } from '../document/document.ts';
import { type Counterparts, counterparts } from '../symmetry/counterparts.ts';
import { findMirror, findTurn, isometryOf, type Symmetry } from '../symmetry/findSymmetry.ts';
import type { Job } from './job.ts';

export interface SymmetryTask {
  readonly document: HemDocument;
  /** What is looked for, or a plane or an axis that was set. */
  readonly wanted: 'mirror' | 'turn' | Symmetry;
}

export interface FoundSymmetry extends Counterparts {
  readonly symmetry: Symmetry;
}

/** What a model is symmetric by, and the counterpart of everything; undefined where it is not. */
export const symmetry: Job<'symmetry', SymmetryTask, FoundSymmetry | undefined> = {
  name: 'symmetry',
  run({ document, wanted }) {
    const { mesh, links } = topologyOf(document.model);
    const found =
      wanted === 'mirror' ? findMirror(mesh, links) : wanted === 'turn' ? findTurn(mesh, links) : wanted;
    return found && { symmetry: found, ...counterparts(mesh, links, isometryOf(found)) };
  },
};
