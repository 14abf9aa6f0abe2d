import { applyDelta, type Change, type Delta, markChange } from '../../document/delta.ts';
import { current, type HemDocument, plainDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { carriedGrain } from '../../document/grainMark.ts';
import { knownFaces } from '../../document/known.ts';
import { shellBoxes } from '../../document/layout.ts';
import { leftLocked } from '../../document/locks.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { about, record, whole } from '../../params.ts';
import { plural } from '../../plural.ts';
import type { Family } from '../../symmetry/families.ts';
import { operation } from '../operation.ts';

/** All pieces of the same shape get the seams and the UVs of one of them: their shells come to lie on its own, those of mirrored ones turned over, so that none is flipped. */
export const carryToCopies = operation({
  name: 'carry-to-copies',
  stage: 'cut',
  params: record({
    face: about('a face of the piece that is taken after', whole()),
  }),
  label: () => 'Carry seams and UVs to copies',
  doing: 'Carrying seams and UVs to copies',
  async run(document, { face }, context) {
    knownFaces(document.model.mesh, [face]);
    const found = await context.jobs.run('copies', { document: plainDocument(document) }, context);
    const family = found.find(
      ({ faces, copies }) => faces.includes(face) || copies.some((copy) => copy.faces.includes(face)),
    );
    if (!family) throw new HemError('no-copies', 'No other piece has the same shape as this one.', [face]);
    return carried(document, family, face);
  },
});

/** The marks of faces that are carried along with UVs, beside seams and grain. */
const FACE_MARKS = ['stale', 'relaxed'] as const;

function carried(document: HemDocument, family: Family, face: number): Delta {
  const { mesh, connectivity } = topologyOf(document.model);
  const { cornerFace, cornerEdge, nextCorner } = connectivity;
  const { uv } = current(document);
  const boxes = shellBoxes(document);
  const { faceShell } = shellsOf(document);
  const own = Uint32Array.from(
    [...family.faces].flatMap((f) =>
      Array.from({ length: mesh.faceStart[f + 1] - mesh.faceStart[f] }, (_, k) => mesh.faceStart[f] + k),
    ),
  );
  const members = [{ faces: family.faces, corners: own, mirrored: false }, ...family.copies];
  const model = members.find(({ faces }) => faces.includes(face)) as (typeof members)[number];
  const free = members.filter((each) => each === model || !each.faces.some((f) => document.locked[f]));
  const left = members.length - free.length;
  const next = uv.slice();
  /** Elements to be unmarked, and to be marked. */
  const edges: Record<'seams' | 'grain', number[][]> = { seams: [[], []], grain: [[], [], [], []] };
  const marks = { stale: [[], []], relaxed: [[], []] } as Record<
    (typeof FACE_MARKS)[number],
    [number[], number[]]
  >;
  for (const member of free) {
    if (member === model) continue;
    const isMirrored = member.mirrored !== model.mirrored;
    const to = new Map<number, number>();
    model.corners.forEach((c, i) => {
      to.set(c, member.corners[i]);
    });
    for (const [from, onto] of to) {
      const f = cornerFace[from];
      const box = boxes[faceShell[f]];
      next[2 * onto] = isMirrored && box ? box[0] + box[2] - uv[2 * from] : uv[2 * from];
      next[2 * onto + 1] = uv[2 * from + 1];
      for (const field of FACE_MARKS) marks[field][document[field][f]].push(cornerFace[onto]);
      const end = to.get(nextCorner[from]) as number;
      const [old, own] = [
        [mesh.cornerVertex[from], mesh.cornerVertex[nextCorner[from]]],
        [mesh.cornerVertex[onto], mesh.cornerVertex[end]],
      ] as const;
      const edge = findEdge(connectivity, ...own);
      edges.seams[document.seams[cornerEdge[from]]].push(edge);
      edges.grain[carriedGrain(document.grain[cornerEdge[from]], old, own)].push(edge);
    }
  }
  const changes: Change[] = [];
  let now = document;
  const add = (change: Change): void => {
    changes.push(change);
    now = applyDelta(now, { changes: [change], notes: [] });
  };
  for (const field of ['seams', 'grain'] as const)
    edges[field].forEach((some, mark) => {
      add(markChange(now, field, some, mark));
    });
  for (const value of [0, 1] as const)
    for (const field of FACE_MARKS) add(markChange(now, field, marks[field][value], value));
  add(uvDifference(document, next));
  return {
    changes,
    notes: [`Carried to ${plural(free.length - 1, 'piece')} of the same shape.`, ...leftLocked(left)],
  };
}
