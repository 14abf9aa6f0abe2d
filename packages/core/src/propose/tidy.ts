import { findEdge } from '../mesh/connectivity.ts';
import { openShell } from '../seams/openShell.ts';
import { extractShell } from '../surface/shell.ts';
import { facesOfShell, type ShellMap, shellsFromSeams } from '../surface/shells.ts';
import { areaOf, type CutUp, cutThese, mostShared, sewThese } from './cutUp.ts';
import type { Priced } from './takeOver.ts';

/** A piece smaller than this part of the surface of its shell is a crumb, and sewn to its neighbour. */
const CRUMB = 5e-4;

/**
 * Sews crumbs to what they were broken off, and opens what cannot lie flat yet.
 *
 * @param old  shells before they were cut up
 * @param wanted  those of them that were
 */
export function tidy(work: CutUp & Priced, old: ShellMap, wanted: ReadonlySet<number>): void {
  const { mesh, connectivity, triangulation, triangleStart, now, seams, costs } = work;
  const oldOf = (face: number) => old.faceShell[face];
  for (let round = 0; round < 3; round++) {
    const shells = shellsFromSeams(mesh, connectivity, now);
    let sewn = 0;
    for (let s = 0; s < shells.shellCount; s++) {
      const faces = facesOfShell(shells, s);
      if (!wanted.has(oldOf(faces[0]))) continue;
      const whole = facesOfShell(old, oldOf(faces[0]));
      if (faces.length === whole.length || areaOf(mesh, faces) > CRUMB * areaOf(mesh, whole)) continue;
      const shared = mostShared(mesh, connectivity, shells, s, (e) => !seams[e]);
      sewThese(work, shared, now);
      sewn += shared.length;
    }
    if (sewn === 0) break;
  }
  const shells = shellsFromSeams(mesh, connectivity, now);
  for (let s = 0; s < shells.shellCount; s++) {
    if (!wanted.has(oldOf(facesOfShell(shells, s)[0]))) continue;
    const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
    const edgeOf = (a: number, b: number) =>
      findEdge(
        connectivity,
        mesh.cornerVertex[shell.vertexCorner[a]],
        mesh.cornerVertex[shell.vertexCorner[b]],
      );
    for (const [a, b] of openShell(shell, (a, b) => costs[edgeOf(a, b)], { disc: true }).edges) {
      cutThese(work, [edgeOf(a, b)]);
    }
  }
}
