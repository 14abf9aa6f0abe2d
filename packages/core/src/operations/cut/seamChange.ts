import { applyDelta, type Change, type Delta, markChange } from '../../document/delta.ts';
import { current, type HemDocument, hasUv, shellsOf, topologyOf } from '../../document/document.ts';
import { LockedError } from '../../document/locks.ts';
import { uvChange } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { plural } from '../../plural.ts';
import { facesOfShell, shellsAtEdges } from '../../surface/shells.ts';

/** @throws HemError when a number is none of this model's edges */
export function knownEdges(document: HemDocument, edges: readonly number[]): readonly number[] {
  const unknown = edges.filter((e) => e >= document.seams.length);
  if (unknown.length > 0) {
    throw new HemError(
      'no-such-edge',
      `There is no edge ${unknown[0]}: the model has ${document.seams.length}.`,
      unknown,
    );
  }
  return edges;
}

/** Why nothing came of it. */
const NOTHING = [
  'Nothing was sewn: none of these edges is a seam.',
  'Nothing was cut: these edges are seams already, or the mesh ends there.',
] as const;

/**
 * Cuts or sews edges and marks the shells beside them as changed since they were unfolded. Where sewing
 * brings two places of the flat together, the larger shell's place holds for both, so that UVs break
 * at seams and nowhere else.
 */
export function changeSeams(document: HemDocument, edges: readonly number[], value: 0 | 1): Delta {
  const { connectivity } = topologyOf(document.model);
  const free = document.locked.includes(1)
    ? edges.filter((e) => lockedFaces(document, e).length === 0)
    : edges;
  const seamChange = markChange(document, 'seams', free, value);
  const spared =
    free.length < edges.length
      ? markChange(document, 'seams', edges, value).index.length - seamChange.index.length
      : 0;
  if (seamChange.index.length === 0 && spared > 0) throw new LockedError(lockedBeside(document, edges));
  if (seamChange.index.length === 0) return { changes: [], notes: [NOTHING[value]] };
  const notes =
    spared > 0
      ? [`${plural(spared, 'edge')} of locked shells left as ${spared === 1 ? 'it is' : 'they are'}.`]
      : [];
  const after = applyDelta(document, { changes: [seamChange], notes: [] });
  const shells = shellsOf(after);
  const touched = shellsAtEdges(connectivity, shells, seamChange.index);
  const unfolded = touched.filter((s) => hasUv(after, s));
  const changes: Change[] = [seamChange];
  if (value === 0 && unfolded.length > 0) changes.push(joinedPlaces(document, after, unfolded));
  const faces = touched.flatMap((s) => [...facesOfShell(shells, s)]);
  const stale = markChange(document, 'stale', faces, 1);
  return { changes: [...changes, stale], notes };
}

/** Faces at an edge that are locked. */
function lockedFaces({ model, locked }: HemDocument, edge: number): number[] {
  const { edgeCornerStart, edgeCorners, cornerFace } = topologyOf(model).connectivity;
  return Array.from(
    edgeCorners.subarray(edgeCornerStart[edge], edgeCornerStart[edge + 1]),
    (c) => cornerFace[c],
  ).filter((f) => locked[f]);
}

/** The locked shells beside some edges, by their names. */
function lockedBeside(document: HemDocument, edges: readonly number[]): number[] {
  const shells = shellsOf(document);
  const found = new Set(edges.flatMap((e) => lockedFaces(document, e).map((f) => shells.faceShell[f])));
  return [...found].map((s) => facesOfShell(shells, s)[0]);
}

/** One place for every vertex of the joined shells, from the largest old shell that has one. */
function joinedPlaces(before: HemDocument, after: HemDocument, isInterior: readonly number[]): Change {
  const { mesh } = before.model;
  const { uv } = current(before);
  const oldShells = shellsOf(before);
  const shells = shellsOf(after);
  const size = (f: number) => facesOfShell(oldShells, oldShells.faceShell[f]).length;
  const uvOf = new Map<number, Float64Array>();
  for (const s of isInterior) {
    const places = new Float64Array(2 * (shells.wedgeStart[s + 1] - shells.wedgeStart[s])).fill(NaN);
    const faces = [...facesOfShell(shells, s)].sort((a, b) => size(b) - size(a) || a - b);
    for (const f of faces) {
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const v = shells.cornerWedge[c] - shells.wedgeStart[s];
        if (!Number.isNaN(places[2 * v])) continue;
        places[2 * v] = uv[2 * c];
        places[2 * v + 1] = uv[2 * c + 1];
      }
    }
    uvOf.set(s, places);
  }
  return uvChange(after, uvOf);
}
