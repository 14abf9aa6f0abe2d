import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { texelsAt } from '../surface/tiles.ts';
import { densitiesOf, isOffDensity } from './densities.ts';
import { type Found, type Inspection, named, type Remedy } from './inspection.ts';
import type { Subject } from './subject.ts';

/** Texels across, below which nothing can be painted. A judgement of ours. */
const LEAST = 4;

export const tooSmall: Inspection = {
  kind: 'too-small',
  when: 'the longer side of its box',
  severity: 'hint',
  thing: ['shell of less than four texels across', 'shells of less than four texels across'],
  effect: 'Nothing can be painted there: sew them to a neighbour, or give them more room.',
  find(subject): Found | undefined {
    const { boxes, document } = subject;
    const shells = [...boxes.keys()].filter((s) => {
      const box = boxes[s];
      return box && Math.max(box[2] - box[0], box[3] - box[1]) * texelsAt(document.tiles, box) < LEAST;
    });
    return shells.length === 0
      ? undefined
      : { count: shells.length, shells, remedy: remedyFor(subject, shells) };
  },
};

/** Those that were made small are made as large as the rest; those that are small are sewn on. */
function remedyFor(subject: Subject, shells: readonly number[]): Remedy | undefined {
  const { document } = subject;
  const isOff = isOffDensity(densitiesOf(subject), document.limits);
  const shrunk = shells.filter(isOff);
  if (shrunk.length > 0)
    return {
      label: 'Scale to the density of the rest',
      request: { operation: 'even-density', params: { shells: named(document, shrunk) } },
    };
  const edges = longestBorders(document, shells);
  return edges.length > 0
    ? { label: 'Sew to a neighbour', request: { operation: 'sew', params: { edges } } }
    : undefined;
}

/** Of each of some shells, the seams between it and the neighbour with which it has most of them in common. */
function longestBorders(document: HemDocument, shells: readonly number[]): number[] {
  const { mesh, connectivity } = topologyOf(document.model);
  const { faceShell } = shellsOf(document);
  const shared = new Map(shells.map((s) => [s, new Map<number, Border>()]));
  for (let e = 0; e < document.seams.length; e++) {
    if (!document.seams[e] || !connectivity.isInterior[e]) continue;
    const first = connectivity.edgeCornerStart[e];
    const s = faceShell[connectivity.cornerFace[connectivity.edgeCorners[first]]];
    const t = faceShell[connectivity.cornerFace[connectivity.edgeCorners[first + 1]]];
    if (s === t) continue;
    for (const [own, other] of [
      [s, t],
      [t, s],
    ]) {
      const borders = shared.get(own);
      if (!borders) continue;
      const border = borders.get(other) ?? { length: 0, edges: [] };
      border.length += edgeLength(mesh, connectivity, e);
      border.edges.push(e);
      borders.set(other, border);
    }
  }
  const longest = [...shared.values()].flatMap(
    (borders) => [...borders.values()].sort((a, b) => b.length - a.length)[0]?.edges ?? [],
  );
  return [...new Set(longest)];
}

interface Border {
  length: number;
  readonly edges: number[];
}
