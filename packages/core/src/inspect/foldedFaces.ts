import { current, shellsOf, topologyOf } from '../document/document.ts';
import { foldsOf } from '../measure/folds.ts';
import type { Inspection } from './inspection.ts';

/** Rows of faces round a folded one that loosen with it. */
const ROWS = 2;

export const foldedFaces: Inspection = {
  kind: 'folded',
  when: 'another diagonal would flip a part',
  severity: 'spoils',
  thing: ['folded face', 'folded faces'],
  effect: 'A program that splits them by the other diagonal flips a part of them.',
  find({ document, boxes }) {
    const { mesh, connectivity } = topologyOf(document.model);
    const { uv } = current(document);
    const { faceShell } = shellsOf(document);
    const laid = [...document.stale.keys()].filter((f) => boxes[faceShell[f]] !== undefined);
    const { folded } = foldsOf(mesh, uv, laid);
    if (folded.length === 0) return undefined;
    const region = new Set(folded);
    for (let row = 0; row < ROWS; row++) {
      const vertices = new Set(
        [...region].flatMap((f) => [...mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1])]),
      );
      const shells = new Set([...region].map((f) => faceShell[f]));
      for (let c = 0; c < mesh.cornerVertex.length; c++)
        if (vertices.has(mesh.cornerVertex[c]) && shells.has(faceShell[connectivity.cornerFace[c]]))
          region.add(connectivity.cornerFace[c]);
    }
    return {
      count: folded.length,
      faces: folded,
      shells: [...new Set(folded.map((f) => faceShell[f]))],
      remedy: { label: 'Relax round them', request: { operation: 'relax', params: { faces: [...region] } } },
    };
  },
};
