import FlatQueue from 'flatqueue';
import { StoppedError } from '../errors.ts';
import type { Connectivity } from '../mesh/connectivity.ts';
import { type Context, heedStop } from '../progress.ts';
import { partShell } from '../seams/partShell.ts';
import { straightRun } from '../seams/straightRun.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { extractShell } from '../surface/shell.ts';
import { facesOfShell, type ShellMap, shellsFromSeams } from '../surface/shells.ts';
import { meetsImage } from '../symmetry/meetsImage.ts';
import { areaOf, type CutUp, cutThese, sewThese, sharedEdges } from './cutUp.ts';
import { predict } from './predict.ts';
import type { Priced } from './takeOver.ts';
import { tidy } from './tidy.ts';

/** L2 stretch beyond which shells are not joined, whatever was wished for. */
const MOST = 4;
/** So much strain, as a part of the area, counts as none: no smaller part need be tried. */
const NO_STRAIN = 0.02;
/** Parts of a run that are sewn where the whole must not be. */
const PARTS = [0.5, 0.25];
/** A part with less than this of the surface of its shell is none. */
const SMALLEST = 0.1;

type Work = CutUp & Priced;

/**
 * Brings the number of shells near to what is wished for: joins two neighbours at a time, those first that stretch least together, or parts
 * the largest across its length where a seam costs least.
 *
 * @param wanted  1 for each face of the shells that count
 * @param pieces  how many are wished for, at least 1
 */
export function reachCount(
  work: Work,
  wanted: Uint8Array,
  pieces: number,
  { signal, report }: Context,
): void {
  const count = (): number => shellsOf(work, wanted).shells.length;
  const first = count();
  const tell = () => report({ fraction: (count() - first) / (pieces - first || 1) });
  const nextJoint = jointFinder(work, wanted, { signal });
  try {
    for (let left = first - pieces; left > 0; left = count() - pieces) {
      tell();
      const joint = nextJoint(left);
      if (!joint) break;
      sewThese(work, joint.edges, work.now);
    }
    while (count() < pieces) {
      tell();
      if (!part(work, wanted, signal)) break;
    }
  } catch (error) {
    // What was reached until it was stopped stands.
    if (!(error instanceof StoppedError)) throw error;
  }
}

/** Shells of the faces that count. */
function shellsOf({ mesh, connectivity, now }: CutUp, wanted: Uint8Array) {
  const map = shellsFromSeams(mesh, connectivity, now);
  const shells = Array.from({ length: map.shellCount }, (_, s) => s);
  return { map, shells: shells.filter((s) => wanted[facesOfShell(map, s)[0]]) };
}

/** A shell by what it is made of: another cut makes it another. */
const nameOf = (map: ShellMap, shell: number): string => {
  const faces = facesOfShell(map, shell);
  return `${faces[0]} ${faces.length} ${map.wedgeStart[shell + 1] - map.wedgeStart[shell]}`;
};

/** Edges along which two shells may be sewn. */
interface Joint {
  readonly edges: readonly number[];
  /** How much more strain the joined shell has than both. */
  readonly added: number;
  /** How many shells fewer there are then, images among them. */
  readonly fewer: number;
}

/**
 * Finds the joint of two neighbours, and their images, that adds least strain. What was found before is an estimate of what it is now, and
 * brought up to date when its turn comes (Minoux 1978).
 *
 * @returns undefined where none lie flat together
 */
function jointFinder(work: Work, wanted: Uint8Array, { signal }: Pick<Context, 'signal'>) {
  const { mesh, connectivity, triangulation, triangleStart, seams, now } = work;
  const strains = new Map<string, number>();
  const joints = new Map<string, Joint | undefined>();
  const estimates = new Map<string, number>();

  return (most: number): Joint | undefined => {
    const { map, shells } = shellsOf(work, wanted);
    const pairs: { readonly names: string; readonly border: string; find(): Joint | undefined }[] = [];
    const queue = new FlatQueue<number>();
    for (const shell of shells)
      for (const [other, shared] of sharedEdges(mesh, connectivity, map, shell, (e) => !seams[e])) {
        if (other < shell || !wanted[facesOfShell(map, other)[0]]) continue;
        const names = `${nameOf(map, shell)}, ${nameOf(map, other)}`;
        const border = `${shared[0]} ${shared.length}`;
        queue.push(pairs.length, estimates.get(border) ?? -Infinity);
        pairs.push({ names, border, find: () => jointOf(map, shell, other, shared, shells.length) });
      }
    for (let i = queue.pop(); i !== undefined; i = queue.pop()) {
      const { names, border, find } = pairs[i];
      const isKnown = joints.has(names);
      const joint = isKnown ? joints.get(names) : find();
      joints.set(names, joint);
      estimates.set(border, joint?.added ?? Infinity);
      if (!joint || joint.fewer > most) continue;
      if (isKnown) return joint;
      queue.push(i, joint.added);
    }
    return undefined;
  };

  function jointOf(
    map: ShellMap,
    shell: number,
    other: number,
    shared: readonly number[],
    count: number,
  ): Joint | undefined {
    const before = strainOf(map, shell) + strainOf(map, other);
    const area = areaOf(mesh, facesOfShell(map, shell));
    let best: Joint | undefined;
    for (const edges of waysToSew(connectivity, shared)) {
      heedStop(signal);
      const next = now.slice();
      sewThese(work, edges, next);
      const after = shellsOf({ ...work, now: next }, wanted);
      const fewer = count - after.shells.length;
      if (fewer === 0) continue;
      const strain = strainOf(after.map, after.map.faceShell[facesOfShell(map, shell)[0]]);
      if (strain === Infinity) continue;
      const added = strain - (before < Infinity ? before : 0);
      if (added < (best?.added ?? Infinity)) best = { edges, added, fewer };
      if (added <= NO_STRAIN * area) break;
    }
    return best;
  }

  /** Area times what L2 squared has above 1, once a shell lies flat; Infinity where it cannot. */
  function strainOf(map: ShellMap, s: number): number {
    const name = nameOf(map, s);
    const known = strains.get(name);
    if (known !== undefined) return known;
    const shell = extractShell(mesh, triangulation, triangleStart, map, s);
    const { area, l2 = Infinity, liesOnItself } = predict(shell, { signal }, true);
    const strain = l2 <= MOST && !liesOnItself ? area * (l2 ** 2 - 1) : Infinity;
    strains.set(name, strain);
    return strain;
  }
}

/** All that two shells share, or a run of it, or where that closes what must stay open, a part of the longest run. */
function* waysToSew(connectivity: Connectivity, shared: readonly number[]): Generator<readonly number[]> {
  yield shared;
  const runs = runsOfEdges(connectivity, shared).map(({ edges }) => edges);
  runs.sort((a, b) => b.length - a.length);
  if (runs.length > 1) yield* runs;
  for (const part of PARTS) yield runs[0].slice(0, Math.ceil(part * runs[0].length));
}

/** Parts the largest shell that can be parted across its length; false where none can. */
function part(work: Work, wanted: Uint8Array, signal: Context['signal']): boolean {
  const { mesh, connectivity, triangulation, triangleStart, now, pairs, costs } = work;
  const { map, shells } = shellsOf(work, wanted);
  const area = new Map(shells.map((s) => [s, areaOf(mesh, facesOfShell(map, s))]));
  const areaAt = (s: number) => area.get(s) ?? 0;
  for (const s of shells.sort((a, b) => areaAt(b) - areaAt(a))) {
    const shell = extractShell(mesh, triangulation, triangleStart, map, s);
    const at = { mesh, connectivity, seams: now };
    const costOf = (e: number) => costs[e];
    const across = runsOfEdges(connectivity, partShell(at, shell, costOf, signal)).flatMap((run) =>
      straightRun(at, run, { costOf }),
    );
    const next = now.slice();
    cutThese(
      { ...work, now: next, pairs: pairs && meetsImage(connectivity, pairs, across) ? undefined : pairs },
      across,
    );
    const after = shellsOf({ ...work, now: next }, wanted);
    const parts = new Set(Array.from(facesOfShell(map, s), (f) => after.map.faceShell[f]));
    const isFair = (p: number) => areaOf(mesh, facesOfShell(after.map, p)) >= SMALLEST * areaAt(s);
    if (parts.size < 2 || ![...parts].every(isFair)) continue;
    now.set(next);
    tidy(work, map, new Set(shells));
    return true;
  }
  return false;
}
