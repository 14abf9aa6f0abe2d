import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import { extractShell } from '../surface/shell.ts';
import { shellsAtEdges, shellsFromSeams } from '../surface/shells.ts';
import { verdictOf } from '../surface/verdict.ts';
import type { Counterparts } from '../symmetry/counterparts.ts';
import { componentsOf, handOver } from './handOver.ts';

/** A mesh that was cut up. */
export interface CutUp {
  readonly mesh: Mesh;
  readonly links: Connectivity;
  readonly triangulation: Triangulation;
  readonly triangleStart: Uint32Array;
  /** 1 for each cut edge; changed in place. */
  readonly now: Uint8Array;
  /** Seams that stay. */
  readonly seams: Uint8Array;
  readonly pairs: Counterparts | undefined;
}

/** Takes faces, and their mirror images, over to the other side of a seam, if every shell is a disc then and nothing is left by itself. */
export function takeOver(
  { mesh, links, triangulation, triangleStart, now, seams, pairs }: CutUp,
  faces: ReadonlySet<number>,
): void {
  const images = pairs ? [...faces].map((f) => pairs.faces[f]).filter((f) => f >= 0) : [];
  const next = now.slice();
  for (const region of componentsOf(mesh, links, now, new Set([...faces, ...images]))) {
    const { faceShell } = shellsFromSeams(mesh, links, next);
    const change = handOver(mesh, links, next, faceShell, region, (e) => !seams[e]);
    if (!change) continue;
    for (const e of change.cut) next[e] = 1;
    for (const e of change.sewn) next[e] = 0;
  }
  const shells = shellsFromSeams(mesh, links, next);
  if (shells.shellCount > shellsFromSeams(mesh, links, now).shellCount) return;
  const changed = shellsAtEdges(
    links,
    shells,
    [...next.keys()].filter((e) => next[e] !== now[e]),
  );
  for (const s of changed)
    if (verdictOf(extractShell(mesh, triangulation, triangleStart, shells, s)).kind !== 'flat') return;
  now.set(next);
}
