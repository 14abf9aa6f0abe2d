import { type HemDocument, hasUv, shellsOf, topologyOf } from '../../document/document.ts';
import { applyPatch, type Change, markChange, type Patch } from '../../document/patch.ts';
import { uvChange } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
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
export function changeSeams(document: HemDocument, edges: readonly number[], value: 0 | 1): Patch {
  const seamChange = markChange(document, 'seams', edges, value);
  if (seamChange.index.length === 0) return { changes: [], notes: [NOTHING[value]] };
  const after = applyPatch(document, { changes: [seamChange], notes: [] });
  const shells = shellsOf(after);
  const touched = shellsAtEdges(topologyOf(document.model).links, shells, seamChange.index);
  const unfolded = touched.filter((s) => hasUv(after, s));
  const changes: Change[] = [seamChange];
  if (value === 0 && unfolded.length > 0) changes.push(joinedPlaces(document, after, unfolded));
  const faces = touched.flatMap((s) => [...facesOfShell(shells, s)]);
  const stale = markChange(document, 'stale', faces, 1);
  return { changes: [...changes, stale], notes: [] };
}

/** One place for every vertex of the joined shells, from the largest old shell that has one. */
function joinedPlaces(before: HemDocument, after: HemDocument, joined: readonly number[]): Change {
  const { mesh } = before.model;
  const { uv } = before.uvSets[before.currentUv];
  const oldShells = shellsOf(before);
  const shells = shellsOf(after);
  const size = (f: number) => facesOfShell(oldShells, oldShells.faceShell[f]).length;
  const uvOf = new Map<number, Float64Array>();
  for (const s of joined) {
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
