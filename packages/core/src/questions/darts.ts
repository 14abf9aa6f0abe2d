import { visibilityOf } from '../derived/visibility.ts';
import { shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import { HemError } from '../errors.ts';
import { about, record, whole } from '../params.ts';
import { RELAX_STEPS } from '../relax/steps.ts';
import { facesOfShell } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { USUAL_VIEW } from '../surface/visibility.ts';
import { question } from './question.ts';
import { type ToldCut, toldCut } from './toldCut.ts';

/** Darts from a place: what each would bring, the best first; none where the place lies on a border, or no cut helps. */
export const darts = question({
  name: 'darts',
  params: record({
    face: about('a face of the shell', whole()),
    vertex: about('a vertex of it', whole()),
  }),
  async answer(document, { face, vertex }, context): Promise<readonly ToldCut[]> {
    const { mesh } = topologyOf(document.model);
    knownFaces(mesh, [face]);
    const shells = shellsOf(document);
    const s = shells.faceShell[face];
    const shell = shellOf(document, s);
    const topology = shellTopology(shell);
    if (!topology.canUnfold) throw new HemError('cannot-unfold', topology.sentence, [face]);
    const vertexOf = (v: number): number => mesh.cornerVertex[shell.vertexCorner[v]];
    const place = Array.from(shell.vertexCorner.keys()).find((v) => vertexOf(v) === vertex);
    if (place === undefined)
      throw new HemError('no-such-point', 'That point is not of this shell.', [vertex]);
    const seen = (await visibilityOf(document, USUAL_VIEW, context)).vertices;
    const visibility = Float32Array.from(shell.vertexCorner.keys(), (v) => seen[vertexOf(v)]);
    const relaxed = facesOfShell(shells, s).some((f) => document.relaxed[f] === 1);
    const found = await context.jobs.run(
      'darts',
      { shell, place, visibility, options: { relaxSteps: relaxed ? RELAX_STEPS : 0 } },
      context,
    );
    return found.map((cut) => toldCut(document, shell, cut));
  },
});
