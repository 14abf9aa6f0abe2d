import { shellsOf, topologyOf } from '../document/document.ts';
import { disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import { type Found, type Inspection, relaxThem, unrelaxed } from './inspection.ts';
import type { Subject } from './subject.ts';

export const overlapWithin: Inspection = {
  kind: 'overlap-within',
  when: 'their insides overlap, the sides of points decided exactly, to a millionth of a triangle’s height, which files lose by rounding',
  severity: 'spoils',
  thing: ['pair of faces of one shell on each other', 'pairs of faces of one shell on each other'],
  effect:
    'What is painted on the one appears on the other. Relaxing lays a shell beside itself where that takes little stretch; splitting one side off costs a seam.',
  find(subject): Found | undefined {
    const { faceShell } = shellsOf(subject.document);
    const pairs = pairsOf(subject, (a, b) => faceShell[a] === faceShell[b]);
    if (pairs.length === 0) return undefined;
    const shells = [...new Set(pairs.map(([a]) => faceShell[a]))];
    // What is flipped has to be unfolded anew before it can be relaxed.
    const spoilt = new Set([...subject.flipped, ...subject.collapsed].map((f) => faceShell[f]));
    const loose = unrelaxed(subject.document, shells).filter((s) => !spoilt.has(s));
    return {
      count: pairs.length,
      atLeast: subject.atLeast,
      faces: new Set(pairs.flat()),
      shells,
      remedy:
        loose.length > 0
          ? relaxThem(subject.document, loose)
          : {
              label: 'Split one side off',
              request: { operation: 'split-off', params: { faces: oneSide(subject, pairs) } },
            },
    };
  },
};

/** Pairs of faces that lie on each other, of those that are meant. */
export function pairsOf(
  { overlaps }: Subject,
  isMeant: (a: number, b: number) => boolean,
): (readonly [number, number])[] {
  const found: (readonly [number, number])[] = [];
  for (let i = 0; i < overlaps.length; i += 2)
    if (isMeant(overlaps[i], overlaps[i + 1])) found.push([overlaps[i], overlaps[i + 1]]);
  return found;
}

/**
 * Faces of which one is in every pair: of two regions that lie on each other the smaller, and of one that lies on itself the faces that lie on
 * most others.
 */
function oneSide({ document, area }: Subject, pairs: readonly (readonly [number, number])[]): number[] {
  const { connectivity, mesh } = topologyOf(document.model);
  const involved = [...new Set(pairs.flat())];
  const numberOf = new Map(involved.map((f, i) => [f, i]));
  const sets = disjointSets(involved.length);
  for (const [f, i] of numberOf)
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const e = connectivity.cornerEdge[c];
      if (!connectivity.isInterior[e] || document.seams[e]) continue;
      const first = connectivity.edgeCornerStart[e];
      for (let k = first; k < first + 2; k++) {
        const j = numberOf.get(connectivity.cornerFace[connectivity.edgeCorners[k]]);
        if (j !== undefined) unite(sets, i, j);
      }
    }
  const { label, count } = numberSets(sets);
  const regionOf = (f: number) => label[numberOf.get(f) as number];
  const size = new Float64Array(count);
  const times = new Map<number, number>();
  for (const f of involved) size[regionOf(f)] += area[f];
  for (const f of pairs.flat()) times.set(f, (times.get(f) ?? 0) + 1);
  const regions = new Set<number>();
  const single = new Set<number>();
  const isTaken = (f: number) => regions.has(regionOf(f)) || single.has(f);
  // Regions first: what they take away is away.
  for (const [a, b] of pairs) {
    const [p, q] = [regionOf(a), regionOf(b)];
    if (p !== q && !regions.has(p) && !regions.has(q)) regions.add(size[p] <= size[q] ? p : q);
  }
  for (const [a, b] of [...pairs].sort(([a], [c]) => (times.get(c) ?? 0) - (times.get(a) ?? 0)))
    if (!isTaken(a) && !isTaken(b)) single.add((times.get(a) ?? 0) >= (times.get(b) ?? 0) ? a : b);
  return involved.filter(isTaken);
}
