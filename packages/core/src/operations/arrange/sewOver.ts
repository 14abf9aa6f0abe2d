import { applyDelta, markChange } from '../../document/delta.ts';
import {
  current,
  type HemDocument,
  shellOf,
  shellsOf,
  topologyOf,
  uvOfShell,
} from '../../document/document.ts';
import { shellBoxes } from '../../document/layout.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { bestSimilarity, type UvMatrix } from '../../surface/similarity.ts';
import { texelsAt } from '../../surface/tiles.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { closeness, toldLanded } from './closeness.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

/**
 * Sews seams between two shells without laying anything anew: the smaller comes over to the larger, turned and scaled so that its border meets the other best, and
 * takes its places along the seam. The larger stays as it is, bit by bit.
 */
export const sewOver = operation({
  name: 'sew-over',
  stage: 'arrange',
  params: record({ edges: about('seams between two shells, by number', indices) }),
  label: ({ edges }) => `Bring a shell over along ${plural(edges.length, 'edge')}`,
  doing: 'Sewing',
  run(document, { edges }) {
    const { larger, smaller, pairs, sewn } = sidesOf(document, knownEdges(document, edges));
    const { uv } = current(document);
    const matrix = fitted(document, larger, smaller, pairs);
    const next = uv.slice();
    const { mesh } = document.model;
    const [a, b, c, d, e, f] = matrix;
    for (const face of facesOfShell(shellsOf(document), smaller))
      for (let k = mesh.faceStart[face]; k < mesh.faceStart[face + 1]; k++) {
        next[2 * k] = a * uv[2 * k] + c * uv[2 * k + 1] + e;
        next[2 * k + 1] = b * uv[2 * k] + d * uv[2 * k + 1] + f;
      }
    const texels = texelsAt(document.tiles, shellBoxes(document)[larger]);
    let worst = 0;
    for (const [to, corners] of pairs)
      for (const k of corners) {
        worst = Math.max(worst, Math.hypot(next[2 * k] - uv[2 * to], next[2 * k + 1] - uv[2 * to + 1]));
        next[2 * k] = uv[2 * to];
        next[2 * k + 1] = uv[2 * to + 1];
      }
    const seams = markChange(document, 'seams', sewn, 0);
    const one = applyDelta(document, { changes: [seams], notes: [] });
    const shell = shellsOf(one).faceShell[facesOfShell(shellsOf(document), larger)[0]];
    const scale = Math.sqrt(Math.abs(a * d - b * c));
    return {
      changes: [seams, uvDifference(document, next), placedChange(document, 1)],
      notes: [
        `Both sides differ by up to ${(worst * texels).toFixed(1)} texels; the smaller came over at ${Math.round(100 * scale)} % of its size.`,
        ...toldLanded(closeness(one, next), [shell]),
        ...placingNotes(document),
      ],
    };
  },
});

interface Sides {
  readonly larger: number;
  readonly smaller: number;
  /** A corner of the larger at each place along the seam, and all corners of the smaller that come to lie there. */
  readonly pairs: ReadonlyMap<number, readonly number[]>;
  readonly sewn: readonly number[];
}

/** @throws HemError when the edges are no seams between two shells that lie flat */
function sidesOf(document: HemDocument, edges: readonly number[]): Sides {
  const { edgeCorners, edgeCornerStart, cornerFace, nextCorner, isInterior } = topologyOf(
    document.model,
  ).connectivity;
  const shells = shellsOf(document);
  const { faceShell, cornerWedge } = shells;
  const sewn = edges.filter((e) => document.seams[e] && isInterior[e]);
  const sides = sewn.map((e) => {
    const [p, q] = [edgeCorners[edgeCornerStart[e]], edgeCorners[edgeCornerStart[e] + 1]];
    return { p, q, s: faceShell[cornerFace[p]], t: faceShell[cornerFace[q]] };
  });
  const found = new Set(sides.flatMap(({ s, t }) => [s, t]));
  const flat = shellBoxes(document);
  if (found.size !== 2 || sides.some(({ s, t }) => s === t))
    throw new HemError('not-between-two', 'Choose seams that all run between the same two shells.', edges);
  const [one, other] = found;
  if (!flat[one] || !flat[other])
    throw new HemError('nothing-unfolded', 'Both shells must lie flat: unfold them first.', edges);
  const sizeOf = (s: number): number => {
    const { positions, triangles } = shellOf(document, s);
    return surfaceArea(positions, triangles);
  };
  const [larger, smaller] = sizeOf(one) >= sizeOf(other) ? [one, other] : [other, one];
  // Places of the smaller by wedge, each with a corner of the larger to which it comes.
  const toOf = new Map<number, number>();
  for (const { p, q, s } of sides) {
    const [own, its] = s === larger ? [p, q] : [q, p];
    // The edge runs the other way on the other side.
    toOf.set(cornerWedge[nextCorner[its]], own);
    toOf.set(cornerWedge[its], nextCorner[own]);
  }
  const pairs = new Map<number, number[]>();
  const { mesh } = document.model;
  for (const face of facesOfShell(shells, smaller))
    for (let k = mesh.faceStart[face]; k < mesh.faceStart[face + 1]; k++) {
      const to = toOf.get(cornerWedge[k]);
      if (to === undefined) continue;
      const corners = pairs.get(to);
      if (corners) corners.push(k);
      else pairs.set(to, [k]);
    }
  return { larger, smaller, pairs, sewn };
}

/** How the smaller shell is laid: mirrored first where the two lie on different sides. */
function fitted(
  document: HemDocument,
  larger: number,
  smaller: number,
  pairs: ReadonlyMap<number, readonly number[]>,
): UvMatrix {
  const { uv } = current(document);
  const isUp = (s: number): boolean => {
    const shell = shellOf(document, s);
    return signedArea(shell.triangles, uvOfShell(shell, uv)) >= 0;
  };
  const flip = isUp(larger) === isUp(smaller) ? 1 : -1;
  const from: number[] = [];
  const to: number[] = [];
  for (const [own, [its]] of pairs) {
    from.push(uv[2 * its], flip * uv[2 * its + 1]);
    to.push(uv[2 * own], uv[2 * own + 1]);
  }
  const [a, b, c, d, e, f] = bestSimilarity(Float64Array.from(from), Float64Array.from(to));
  return [a, b, flip * c, flip * d, e, f];
}
