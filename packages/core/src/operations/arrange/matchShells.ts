import { type HemDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { grainInFlat } from '../../document/grain.ts';
import { knownFaces } from '../../document/known.ts';
import { shellBoxes } from '../../document/layout.ts';
import { shellsLabel } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { about, choice, indices, record, whole } from '../../params.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { coveredArea } from '../../surface/flatArea.ts';
import { upInFlat } from '../../unfold/upright.ts';
import { operation } from '../operation.ts';
import { middleOf, moveBy, placedShells, placeShells, turnAbout } from './placeShells.ts';

const WHAT = { scale: 'as large', turn: 'turned', place: 'placed' } as const;

/** Gives shells the texture scale, the turn or the place of another. */
export const matchShells = operation({
  name: 'match-shells',
  stage: 'arrange',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    like: about('a face of the shell that they are to be like', whole()),
    what: about(
      'what they take from it: its texture scale, which way its grain or what is up on the model runs, or where its middle lies',
      choice('scale', 'turn', 'place'),
    ),
  }),
  label: ({ shells, what, like }, document) =>
    `Have ${shellsLabel(document, shells)} ${WHAT[what]} like shell ${shellsOf(document).faceShell[like] + 1}`,
  doing: 'Matching',
  run(document, { shells, like, what }) {
    knownFaces(document.model.mesh, [like]);
    const model = shellsOf(document).faceShell[like];
    const box = shellBoxes(document)[model];
    if (!box)
      throw new HemError('not-unfolded', 'The shell that they are to be like does not lie flat.', [like]);
    const placed = placedShells(document, shells).filter(({ s }) => s !== model);
    if (placed.length === 0)
      throw new HemError('too-few-shells', 'It takes a shell beside the one that it is to be like.');
    const [u, v] = middleOf(box);
    const [scale, angle] = what === 'place' ? [1, 0] : figuresOf(document, model);
    return placeShells(document, placed, ({ s, box: own }) => {
      const middle = middleOf(own);
      if (what === 'place') return moveBy(u - middle[0], v - middle[1]);
      const [ownScale, ownAngle] = figuresOf(document, s);
      return what === 'scale' ? turnAbout(middle, 0, scale / ownScale) : turnAbout(middle, angle - ownAngle);
    });
  },
});

/** Flat length per length on the model of a shell, and the angle at which its grain, or else up, runs. */
function figuresOf(document: HemDocument, s: number): readonly [scale: number, angle: number] {
  const shell = shellOf(document, s);
  const uv = shellUv(document, shell) as Float64Array;
  const area = surfaceArea(shell.positions, shell.triangles);
  const flat = coveredArea(shell.triangles, uv);
  const [alongU, alongV] = grainInFlat(document, s, shell, uv)?.along ?? upInFlat(shell, uv, document.upAxis);
  return [area > 0 && flat > 0 ? Math.sqrt(flat / area) : 1, Math.atan2(alongV, alongU)];
}
