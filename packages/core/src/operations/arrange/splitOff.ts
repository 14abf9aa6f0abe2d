import { keepsPlaces } from '../../document/constraints.ts';
import { applyDelta, markChange } from '../../document/delta.ts';
import { current, shellsOf, topologyOf } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { borderOfFaces } from '../../select/borderOfFaces.ts';
import { operation } from '../operation.ts';
import { clearPlaces } from './clearPlaces.ts';
import { layAfresh } from './layAfresh.ts';

/** Cuts faces out of their shells as they lie, without laying anything anew, and moves them to free space. */
export const splitOff = operation({
  name: 'split-off',
  stage: 'arrange',
  params: record({ faces: about('faces that become a shell of their own, by number', indices) }),
  label: ({ faces }) => `Split ${plural(faces.length, 'face')} off`,
  doing: 'Splitting off',
  run(document, { faces }) {
    knownFaces(document.model.mesh, faces);
    const { connectivity } = topologyOf(document.model);
    const border = borderOfFaces(connectivity, faces).filter((e) => connectivity.isInterior[e]);
    const seams = markChange(document, 'seams', border, 1);
    const cut = applyDelta(document, { changes: [seams], notes: [] });
    const { faceShell } = shellsOf(cut);
    const { uv } = current(document);
    const next = uv.slice();
    const notes = keepsPlaces(document)
      ? clearPlaces(cut, next, [...new Set(faces.map((f) => faceShell[f]))])
      : layAfresh(cut, next);
    return { changes: [seams, uvDifference(document, next)], notes };
  },
});
