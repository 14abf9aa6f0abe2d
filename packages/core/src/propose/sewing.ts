import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import type { Context } from '../progress.ts';
import { surfaceArea } from '../surface/areas.ts';
import { extractShell, faceTriangleStart, type Shell } from '../surface/shell.ts';
import { facesOfShell, type ShellMap, shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { type Flat, layFlat } from './layFlat.ts';
import type { SeamRun } from './seamRuns.ts';

/** So much strain, as a part of the area, counts as none: of runs that cost no stretch the dearest seam is sewn first. */
const NO_STRAIN = 2e-2;

/** What would come of sewing a set of runs. */
interface Trial {
  readonly stamp: string;
  /** How much stretch a set costs for the seam it saves; Infinity where it may not be sewn. */
  readonly score: number;
  readonly flats: ReadonlyMap<number, Flat>;
}

export interface SewingOptions {
  /** What a seam along each edge costs. */
  readonly costs: Float64Array;
  /** L2 stretch that no shell may exceed. */
  readonly most: number;
  /** Steps of relaxing for a shell that would exceed it. */
  readonly relaxSteps: number;
}

/**
 * Seams that are being sewn, with what is known of the shells they leave: what would come of sewing a set of runs is worked out by laying the
 * joined shells flat, and again only when a shell beside them is another.
 *
 * @param mesh  of triangles
 * @param seams  1 for every cut edge; every shell of it a disc
 */
export function sewing(
  mesh: Mesh,
  connectivity: Connectivity,
  seams: Uint8Array,
  { costs, most, relaxSteps }: SewingOptions,
  signal: Context['signal'],
) {
  const triangulation = triangulate(mesh);
  const triangleStart = faceTriangleStart(mesh, triangulation);
  const now = seams.slice();
  let shells = shellsFromSeams(mesh, connectivity, now);

  const flatten = (shell: Shell) => layFlat(shell, { most, relaxSteps }, signal);

  // Shells by their least face: what is known of each, and how often it changed.
  const known = new Map<number, Flat | undefined>();
  const version = new Map<number, number>();
  const nameAt = (map: ShellMap, face: number): number => facesOfShell(map, map.faceShell[face])[0];
  const facesBeside = (run: SeamRun): number[] => {
    const [e] = run.edges;
    const first = connectivity.edgeCornerStart[e];
    return [0, 1].map((k) => connectivity.cornerFace[connectivity.edgeCorners[first + k]]);
  };
  const strainOf = (map: ShellMap, face: number): number => {
    const name = nameAt(map, face);
    if (!known.has(name)) {
      known.set(name, flatten(extractShell(mesh, triangulation, triangleStart, map, map.faceShell[face])));
    }
    return known.get(name)?.strain ?? Infinity;
  };

  const degree = new Uint32Array(connectivity.vertexEdgeStart.length - 1);
  for (let e = 0; e < now.length; e++)
    if (now[e] || !connectivity.isInterior[e])
      for (let k = 0; k < 2; k++) degree[connectivity.edgeVertices[2 * e + k]]++;
  const isTip = (v: number): boolean => degree[v] === 1;

  const total = surfaceArea(mesh.positions, mesh.cornerVertex);

  /** Whether sewing a run leaves discs: between two shells, or from the tip of a cut. */
  const keepsDiscs = (run: SeamRun): boolean => {
    const [a, b] = facesBeside(run).map((f) => shells.faceShell[f]);
    if (a !== b) return true;
    return isTip(run.ends[0]) !== isTip(run.ends[1]);
  };
  const stampOf = (runs: readonly SeamRun[]): string =>
    runs
      .flatMap(facesBeside)
      .map((f) => {
        const name = nameAt(shells, f);
        return `${name}:${version.get(name) ?? 0}`;
      })
      .join(' ');

  const sewn = (runs: readonly SeamRun[]): Uint8Array => {
    const next = now.slice();
    for (const { edges } of runs) for (const e of edges) next[e] = 0;
    return next;
  };
  const trials = new Map<string, Trial>();
  const keyOf = (runs: readonly SeamRun[]): string =>
    runs.map(({ edges }) => `${edges[0]}–${edges[edges.length - 1]}`).join(' ');
  const costOf = (runs: readonly SeamRun[]): number =>
    runs.reduce((sum, { edges }) => sum + edges.reduce((s, e) => s + costs[e], 0), 0);
  const trialOf = (runs: readonly SeamRun[]): Trial => {
    const stamp = stampOf(runs);
    const key = keyOf(runs);
    const last = trials.get(key);
    if (last?.stamp === stamp) return last;
    const flats = new Map<number, Flat>();
    let score = Infinity;
    if (runs.every(keepsDiscs)) {
      const map = shellsFromSeams(mesh, connectivity, sewn(runs));
      let before = 0;
      for (const name of new Set(runs.flatMap(facesBeside).map((f) => nameAt(shells, f))))
        before += strainOf(shells, name);
      let after = 0;
      for (const name of new Set(runs.flatMap(facesBeside).map((f) => nameAt(map, f)))) {
        const shell = extractShell(mesh, triangulation, triangleStart, map, map.faceShell[name]);
        const flat = shellTopology(shell).kind === 'disk' ? flatten(shell) : undefined;
        if (!flat) {
          after = Infinity;
          break;
        }
        flats.set(name, flat);
        after += flat.strain;
      }
      const strain = before === Infinity ? 0 : Math.max(0, after - before);
      if (after < Infinity) score = (strain + NO_STRAIN * total) / costOf(runs);
    }
    const trial = { stamp, score, flats };
    trials.set(key, trial);
    return trial;
  };

  return {
    /** 1 for every edge that is cut now. */
    seams: now,
    /** What is known of a set of runs; undefined where nothing is, or its shells are others by now. */
    known(runs: readonly SeamRun[]): Trial | undefined {
      const last = trials.get(keyOf(runs));
      return last?.stamp === stampOf(runs) ? last : undefined;
    },
    /** The last score of a set of runs, true or not by now. */
    lastScore: (runs: readonly SeamRun[]): number | undefined => trials.get(keyOf(runs))?.score,
    /** @throws StoppedError */
    tryOut: trialOf,
    /** Sews a set of runs that was tried. */
    sew(runs: readonly SeamRun[]): void {
      const { flats } = trialOf(runs);
      for (const { edges } of runs)
        for (const e of edges) {
          now[e] = 0;
          for (let k = 0; k < 2; k++) degree[connectivity.edgeVertices[2 * e + k]]--;
        }
      shells = shellsFromSeams(mesh, connectivity, now);
      for (const [name, flat] of flats) {
        known.set(name, flat);
        version.set(name, (version.get(name) ?? 0) + 1);
      }
    },
  };
}
