import { markChange } from '../../document/delta.ts';
import { current, type HemDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { carriedGrain } from '../../document/grainMark.ts';
import { knownFaces } from '../../document/known.ts';
import { shellBoxes } from '../../document/layout.ts';
import { meshOfShells } from '../../document/meshOfShells.ts';
import { chosenShells } from '../../document/shellChoice.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { SAME } from '../../jobs/copies.ts';
import { connectivityOf, findEdge } from '../../mesh/connectivity.ts';
import { about, choice, otherwise, record, whichShells, whole } from '../../params.ts';
import { plural } from '../../plural.ts';
import { heedStop } from '../../progress.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { aspectOf } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { sameShape } from '../../symmetry/sameShape.ts';
import { operation } from '../operation.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

const WHERE = {
  stacked: 'on top of it',
  tile: 'one tile beside it',
  own: 'each in its place',
} as const;

/** Shells of the same shape as one get its UVs, point by point: on top of it, one tile beside it, or each where it lies. */
export const giveUvs = operation({
  name: 'give-uvs',
  stage: 'arrange',
  params: record({
    like: about('a face of the shell whose UVs are given', whole()),
    shells: whichShells,
    where: about(
      'where they come to lie: on top of it, on top of one another one tile to the right of it, or each where its middle lies; mirrored ones are mirrored on the texture but in their own places',
      otherwise(choice('stacked', 'tile', 'own'), 'stacked'),
    ),
  }),
  label: ({ like, where }, document) =>
    `Give the UVs of shell ${shellsOf(document).faceShell[like] + 1} to copies, ${WHERE[where]}`,
  doing: 'Giving UVs to copies',
  run(document, { like, shells, where }, { signal, report }) {
    knownFaces(document.model.mesh, [like]);
    const model = shellsOf(document).faceShell[like];
    const boxes = shellBoxes(document);
    const box = boxes[model];
    if (!box) throw new HemError('not-unfolded', 'That shell does not lie flat: unfold it first.', [like]);
    const { uv } = current(document);
    const next = uv.slice();
    const mesh = meshOfShells(document);
    const connectivity = connectivityOf(mesh);
    const faces = facesOfShell(shellsOf(document), model);
    const corners = cornersOf(document, faces);
    const given: number[] = [];
    const grain: number[][] = [[], [], [], []];
    let count = 0;
    const chosen = chosenShells(document, shells);
    for (const [i, s] of chosen.entries()) {
      if (s === model) continue;
      heedStop(signal);
      report({ fraction: i / chosen.length });
      const same = sameShape(mesh, connectivity, faces, facesOfShell(shellsOf(document), s), SAME);
      if (!same) continue;
      count++;
      given.push(...facesOfShell(shellsOf(document), s));
      const map = mapTo(document, where, box, boxes[s], same.mirrored);
      corners.forEach((c, i) => {
        next.set(map(uv[2 * c], uv[2 * c + 1]), 2 * same.corners[i]);
      });
      carryGrain(document, corners, same.corners, grain);
    }
    if (count === 0)
      throw new HemError('no-copies', 'None of these shells has the same shape as that one.', [like]);
    return {
      changes: [
        uvDifference(document, next),
        // What lies like another is as done as that.
        markChange(document, 'stale', given, document.stale[like]),
        markChange(document, 'relaxed', given, document.relaxed[like]),
        ...grain.map((edges, mark) => markChange(document, 'grain', edges, mark)),
        placedChange(document, 1),
      ],
      notes: [`Given to ${plural(count, 'shell')} of the same shape.`, ...placingNotes(document)],
    };
  },
});

function cornersOf({ model }: HemDocument, faces: Uint32Array): number[] {
  const { faceStart } = model.mesh;
  return [...faces].flatMap((f) =>
    Array.from({ length: faceStart[f + 1] - faceStart[f] }, (_, k) => faceStart[f] + k),
  );
}

/** Adds edges of a copy to those with the same grain as their counterparts, by their marks. */
function carryGrain(
  document: HemDocument,
  from: readonly number[],
  onto: Uint32Array,
  edges: readonly number[][],
): void {
  if (!document.grain.some(Boolean)) return;
  const { connectivity } = topologyOf(document.model);
  const { cornerVertex } = document.model.mesh;
  const image = new Map(from.map((c, i) => [c, cornerVertex[onto[i]]]));
  for (const [c, vertex] of image) {
    const end = image.get(connectivity.nextCorner[c]) as number;
    const old = [cornerVertex[c], cornerVertex[connectivity.nextCorner[c]]] as const;
    const mark = carriedGrain(document.grain[connectivity.cornerEdge[c]], old, [vertex, end]);
    edges[mark].push(findEdge(connectivity, vertex, end));
  }
}

type PlaceMap = (u: number, v: number) => readonly [number, number];

/** Where a place of the model shell comes to lie for a copy. */
function mapTo(
  { tiles }: HemDocument,
  where: keyof typeof WHERE,
  box: UvBox,
  own: UvBox | undefined,
  isMirrored: boolean,
): PlaceMap {
  if (where === 'stacked') return (u, v) => [u, v];
  if (where === 'tile') return (u, v) => [u + aspectOf(tiles), v];
  const [middleU, middleV] = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2];
  const [toU, toV] = own ? [(own[0] + own[2]) / 2, (own[1] + own[3]) / 2] : [middleU, middleV];
  const side = isMirrored ? -1 : 1;
  return (u, v) => [toU + side * (u - middleU), toV + v - middleV];
}
