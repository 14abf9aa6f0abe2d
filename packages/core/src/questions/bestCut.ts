import { shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { RELAX_STEPS } from '../operations/cut/reflatten.ts';
import { knownFaces } from '../operations/known.ts';
import { record, whole } from '../params.ts';
import { facesOfShell } from '../surface/shells.ts';
import { question } from './question.ts';
import { type ToldCut, toldCut } from './toldCut.ts';

/**
 * The single cut that helps the shell of a face most: its edges, and the stretch after it, laid flat anew and relaxed as the cut would
 * do it; without edges where none helps.
 */
export const bestCut = question({
  name: 'best-cut',
  params: record({ face: whole() }),
  background: true,
  idle: true,
  async answer(document, { face }, context): Promise<Partial<ToldCut> & Pick<ToldCut, 'edges'>> {
    const { mesh } = topologyOf(document.model);
    knownFaces(mesh, [face]);
    const s = shellsOf(document).faceShell[face];
    const shell = shellOf(document, s);
    const relaxed = facesOfShell(shellsOf(document), s).some((f) => document.relaxed[f] === 1);
    const options = { relaxSteps: relaxed ? RELAX_STEPS : 0 };
    const found = await context.jobs.run('best-cut', { shell, options }, context);
    return found ? toldCut(document, shell, found) : { edges: [] };
  },
});
