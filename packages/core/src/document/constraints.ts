import { type Run, runsOfEdges } from '../select/orderedRun.ts';
import type { Shell } from '../surface/shell.ts';
import { facesOfShell } from '../surface/shells.ts';
import { type HemDocument, shellsOf, topologyOf } from './document.ts';

/** What an artist holds on to in a shell while the rest of it gives way. */

/** Shell vertices that hold their UVs. */
export const pinsOf = ({ pins }: HemDocument, { vertexCorner }: Shell): number[] =>
  [...vertexCorner.keys()].filter((v) => pins[vertexCorner[v]] === 1);

/** Whether a shell is finished: acts leave it as it is. */
export const isLocked = (document: HemDocument, shell: number): boolean =>
  facesOfShell(shellsOf(document), shell).some((f) => document.locked[f] === 1);

/** Shells that hold their places, being locked or pinned. */
export function constrainedShells(document: HemDocument): Set<number> {
  const constrained = new Set<number>();
  const { locked, pins } = document;
  if (!locked.includes(1) && !pins.includes(1)) return constrained;
  const { faceShell } = shellsOf(document);
  const { faceStart } = document.model.mesh;
  faceShell.forEach((s, f) => {
    if (locked[f] || pins.subarray(faceStart[f], faceStart[f + 1]).includes(1)) constrained.add(s);
  });
  return constrained;
}

/** Whether shells keep their places: the artist has placed some, or holds one. */
export const keepsPlaces = (document: HemDocument): boolean =>
  document.placed === 1 || document.pins.includes(1) || document.locked.includes(1);

/** Corners of one vertex on one side of the seams, given one of them. */
export function cornersBeside(document: HemDocument, corner: number): number[] {
  const { vertexEdgeStart, vertexEdges, edgeCornerStart, edgeCorners, nextCorner } = topologyOf(
    document.model,
  ).connectivity;
  const { cornerWedge } = shellsOf(document);
  const vertex = document.model.mesh.cornerVertex[corner];
  const found = new Set<number>();
  for (let i = vertexEdgeStart[vertex]; i < vertexEdgeStart[vertex + 1]; i++) {
    const e = vertexEdges[i];
    for (let k = edgeCornerStart[e]; k < edgeCornerStart[e + 1]; k++)
      for (const c of [edgeCorners[k], nextCorner[edgeCorners[k]]])
        if (cornerWedge[c] === cornerWedge[corner]) found.add(c);
  }
  return [...found];
}

/** Chains of a shell that lie straight at true length, as runs of its vertices. */
export const staysOf = (document: HemDocument, shell: number): Run[] =>
  runsIn(document, shell, document.stays);

/** Marked edges of a shell, as runs of its vertices. */
export function runsIn(document: HemDocument, shell: number, marks: Uint8Array): Run[] {
  const { nextCorner, cornerEdge } = topologyOf(document.model).connectivity;
  const { shellFaces, shellFaceStart, cornerWedge, wedgeStart } = shellsOf(document);
  const { faceStart } = document.model.mesh;
  const ends: number[] = [];
  const seen = new Set<number>();
  for (let i = shellFaceStart[shell]; i < shellFaceStart[shell + 1]; i++) {
    const f = shellFaces[i];
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      if (!marks[cornerEdge[c]]) continue;
      const [a, b] = [c, nextCorner[c]].map((each) => cornerWedge[each] - wedgeStart[shell]);
      // Inside a shell an edge has two corners that begin it.
      const key = Math.min(a, b) * (wedgeStart[shell + 1] - wedgeStart[shell]) + Math.max(a, b);
      if (seen.has(key)) continue;
      seen.add(key);
      ends.push(a, b);
    }
  }
  return runsOfEdges(
    { edgeVertices: Uint32Array.from(ends) },
    Array.from({ length: ends.length / 2 }).keys(),
  );
}
