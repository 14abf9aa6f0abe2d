import { visibilityOf } from '../derived/visibility.ts';
import { shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import { about, record, whole } from '../params.ts';
import { RELAX_STEPS } from '../relax/steps.ts';
import { facesOfShell } from '../surface/shells.ts';
import { USUAL_VIEW } from '../surface/visibility.ts';
import { question } from './question.ts';
import { type ToldCut, toldCut } from './toldCut.ts';

/**
 * The single cut that helps the shell of a face most, of those that help about as much the one that shows least: its edges, and the stretch after it, laid flat anew and relaxed as the cut would
 * do it; without edges where none helps.
 */
export const bestCut = question({
  name: 'best-cut',
  params: record({ face: about('a face of the shell', whole()) }),
  background: true,
  idle: true,
  async answer(document, { face }, context): Promise<Partial<ToldCut> & Pick<ToldCut, 'edges'>> {
    const { mesh } = topologyOf(document.model);
    knownFaces(mesh, [face]);
    const s = shellsOf(document).faceShell[face];
    const shell = shellOf(document, s);
    const relaxed = facesOfShell(shellsOf(document), s).some((f) => document.relaxed[f] === 1);
    const { vertices } = await visibilityOf(document, USUAL_VIEW, context);
    const visibility = Float32Array.from(shell.vertexCorner, (c) => vertices[mesh.cornerVertex[c]]);
    const options = { relaxSteps: relaxed ? RELAX_STEPS : 0, visibility };
    const found = await context.jobs.run('best-cut', { shell, options }, context);
    return found ? toldCut(document, shell, found) : { edges: [] };
  },
});
