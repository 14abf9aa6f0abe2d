import type { Connectivity } from '../mesh/connectivity.ts';
import type { Context } from '../progress.ts';
import { coarseSurface } from '../surface/coarseSurface.ts';
import { extractShell, shellFromTriangles } from '../surface/shell.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { areaOf, type CutUp, mostShared, sewThese } from './cutUp.ts';
import { isStretched } from './layFlat.ts';
import { seamRuns } from './seamRuns.ts';

export interface SewSmallOptions {
  /** L2 stretch that a joined shell may not exceed. */
  readonly most: number;
  /** A shell that is less than this part of the whole may cost twice the stretch. */
  readonly smallest: number;
}

/** A shell that is so much of the whole is never small. */
export const MOST_SMALL = 0.15;
/** Triangles of a coarser surface by which what is joined is judged, steps of relaxing for it, and how many shells are tried. */
const [MOST_JOINED, JOINED_STEPS, MOST_TRIED] = [3000, 12, 24];

/**
 * Joins small shells to the neighbour with which they share most, along all they share or one run of it, where both together lie flat.
 *
 * @param wanted  1 for each face of the whole
 */
export function sewSmall(
  work: CutUp,
  wanted: Uint8Array,
  { most, smallest }: SewSmallOptions,
  { signal }: Pick<Context, 'signal'>,
): void {
  const { mesh, connectivity, triangulation, triangleStart, seams, now } = work;
  const whole = areaOf(
    mesh,
    [...wanted.keys()].filter((f) => wanted[f]),
  );
  const tried = new Set<string>();
  for (let tries = 0; tries < MOST_TRIED && !signal.aborted; ) {
    const shells = shellsFromSeams(mesh, connectivity, now);
    const small = Array.from({ length: shells.shellCount }, (_, s) => facesOfShell(shells, s))
      .filter((faces) => wanted[faces[0]] && !tried.has(`${faces[0]} ${faces.length}`))
      .map((faces) => ({ faces, area: areaOf(mesh, faces) }))
      .filter(({ area }) => area < MOST_SMALL * whole)
      .sort((a, b) => a.area - b.area || a.faces[0] - b.faces[0])[0];
    if (!small) return;
    const { faces, area } = small;
    tried.add(`${faces[0]} ${faces.length}`);
    const shared = mostShared(mesh, connectivity, shells, shells.faceShell[faces[0]], (e) => !seams[e]);
    if (shared.length === 0) continue;
    tries++;
    const allowed = area < smallest * whole ? 1 + 2 * (most - 1) : most;
    const fits = (edges: readonly number[]): Uint8Array | undefined => {
      const next = now.slice();
      sewThese(work, edges, next);
      const isInterior = shellsFromSeams(mesh, connectivity, next);
      if (isInterior.shellCount === shells.shellCount) return undefined;
      const shell = extractShell(
        mesh,
        triangulation,
        triangleStart,
        isInterior,
        isInterior.faceShell[faces[0]],
      );
      if (shellTopology(shell).kind !== 'disk') return undefined;
      const { mesh: coarse } = coarseSurface(shell, MOST_JOINED, signal);
      const stretches = isStretched(
        shellFromTriangles(coarse.positions, coarse.cornerVertex),
        { most: allowed, relaxSteps: JOINED_STEPS },
        signal,
      );
      return stretches === false ? next : undefined;
    };
    const next = fits(shared) ?? firstOf(runsOf(connectivity, now, shared), fits);
    if (next) now.set(next);
  }
}

/** Edges by the runs between forks of all seams that they make up, those of most edges first. */
function runsOf(connectivity: Connectivity, now: Uint8Array, edges: readonly number[]): number[][] {
  const own = new Set(edges);
  const { vertexEdges, vertexEdgeStart, isInterior } = connectivity;
  const isFork = (v: number) => {
    let degree = 0;
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
      if (now[vertexEdges[i]] || !isInterior[vertexEdges[i]]) degree++;
    return degree !== 2;
  };
  return seamRuns(connectivity, (e) => own.has(e), isFork)
    .map((run) => [...run.edges])
    .sort((a, b) => b.length - a.length);
}

function firstOf<T, R>(items: readonly T[], find: (item: T) => R | undefined): R | undefined {
  for (const item of items) {
    const found = find(item);
    if (found !== undefined) return found;
  }
  return undefined;
}
