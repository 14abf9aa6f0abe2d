import { type HemDocument, topologyOf } from '../document/document.ts';
import { type Counterparts, counterparts } from '../symmetry/counterparts.ts';
import { fallsOn, findMirror, findTurn, isometryOf, type Symmetry } from '../symmetry/findSymmetry.ts';
import type { Job } from './job.ts';

export interface SymmetryTask {
  readonly document: HemDocument;
  /** What is looked for, or a plane or an axis that was set. */
  readonly wanted: 'mirror' | 'turn' | Symmetry;
}

export interface FoundSymmetry extends Counterparts {
  readonly symmetry: Symmetry;
  /** Whether the sides are triangulated so differently that counterparts have to be found by place. */
  readonly byPlace: boolean;
}

/** So many edges must have a counterpart for the mesh itself to be symmetric. */
const MATCHED = 0.9;

/** What a model is symmetric by, and the counterpart of everything; undefined where it is not. */
export const symmetry: Job<'symmetry', SymmetryTask, FoundSymmetry | undefined> = {
  name: 'symmetry',
  run({ document, wanted }) {
    const { mesh, connectivity } = topologyOf(document.model);
    const found =
      wanted === 'mirror'
        ? findMirror(mesh, connectivity)
        : wanted === 'turn'
          ? findTurn(mesh, connectivity)
          : wanted;
    if (!found || !fallsOn(mesh, connectivity, found)) return undefined;
    const pairs = counterparts(mesh, connectivity, isometryOf(found));
    const matched = pairs.edges.reduce((sum, e) => sum + (e >= 0 ? 1 : 0), 0);
    return { symmetry: found, ...pairs, byPlace: matched < MATCHED * pairs.edges.length };
  },
};
