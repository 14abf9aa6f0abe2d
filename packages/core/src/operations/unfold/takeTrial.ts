import { pinsOf } from '../../document/constraints.ts';
import { markChange } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { HemError } from '../../errors.ts';
import { about, choice, flag, list, numbers, record, whole, words } from '../../params.ts';
import { plural } from '../../plural.ts';
import { signedArea } from '../../surface/flatArea.ts';
import type { Shell } from '../../surface/shell.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { bestTurn, transformUv } from '../../surface/similarity.ts';
import { METHODS } from '../../unfold/unfold.ts';
import { nearOldPlace, onBoard } from '../arrange/boardLayout.ts';
import { operation } from '../operation.ts';

/** A shell, named by a face, with the UV of each of its vertices, `2 × vertexCount`, in the order in which corners first meet them. */
const laidShell = record({ face: whole(), uv: numbers, method: choice(...METHODS), relaxed: flag() });

/**
 * Lays shells as they lay in a trial. A shell stays as large as it is and where it is; one with pins, or without UVs, comes to lie just as it lay
 * in the trial.
 */
export const takeTrial = operation({
  name: 'take-trial',
  stage: 'unfold',
  params: record({
    trial: about('the name of the trial', words(300)),
    shells: about('its shells, each by a face, as they lay', list(laidShell, { min: 1 })),
  }),
  label: ({ trial, shells }) => `Take ${plural(shells.length, 'shell')} of “${trial}”`,
  doing: 'Taking a trial',
  run(document, { shells }) {
    knownFaces(
      document.model.mesh,
      shells.map(({ face }) => face),
    );
    const uvOf = new Map<number, Float64Array>();
    const firm = new Map<number, Float64Array>();
    const marks = shells.flatMap(({ face, uv, method, relaxed }) => {
      const s = shellsOf(document).faceShell[face];
      const shell = shellOf(document, s);
      if (uv.length !== 2 * shell.vertexCorner.length)
        throw new HemError('another-shell', 'This trial is of a shell that is cut otherwise now.', [face]);
      const laid = Float64Array.from(uv);
      if (pinsOf(document, shell).length > 0) firm.set(s, laid);
      else uvOf.set(s, whereItLies(document, shell, laid));
      const faces = facesOfShell(shellsOf(document), s);
      return [
        markChange(document, 'stale', faces, 0),
        markChange(document, 'relaxed', faces, relaxed ? 1 : 0),
        markChange(document, 'method', faces, METHODS.indexOf(method)),
      ];
    });
    const { change, notes } = onBoard(document, uvOf, firm);
    return { changes: [change, ...marks], notes };
  },
});

/** A map as large as its shell is now, where it is now. */
function whereItLies(document: HemDocument, shell: Shell, laid: Float64Array): Float64Array {
  const now = shellUv(document, shell);
  if (!now) return nearOldPlace(document, shell, laid, 1);
  const size = (uv: Float64Array) => Math.abs(signedArea(shell.triangles, uv));
  const scale = Math.sqrt(size(now) / (size(laid) || 1));
  return transformUv(laid, bestTurn(laid, now, scale || 1));
}
