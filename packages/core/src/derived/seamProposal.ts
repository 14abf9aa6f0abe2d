import { type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import { LockedError, lockedOf } from '../document/locks.ts';
import { chosenShells, namedShells, nameOfShell } from '../document/shellChoice.ts';
import type { Jobs } from '../jobs/index.ts';
import { faceNormal } from '../mesh/normals.ts';
import { about, choice, flag, number, optional, otherwise, record, type Taken, whole } from '../params.ts';
import type { Context } from '../progress.ts';
import { HIDDEN, MOST_PIECES, PRESETS } from '../propose/presets.ts';
import { edgesByRule } from '../seams/fromRules.ts';
import { facesOfShell, shellsAtEdges } from '../surface/shells.ts';
import { cutAt, type ProposedEdges, proposedEdges, SYMMETRIES } from './proposedEdges.ts';
import { lookedAt } from './visibility.ts';

/** What seams may be proposed by. */
export const PROPOSAL_PARAMS = {
  preset: about(
    'clean for few seams and little stretch, rough for painting at once',
    otherwise(choice('clean', 'rough'), 'clean'),
  ),
  stretch: about('L2 stretch that is allowed; that of the preset when absent', optional(number(1.005, 4))),
  hidden: about('from 0, short seams, to 1, hidden ones', otherwise(number(0, 1), HIDDEN)),
  symmetric: about(
    'by what seams are symmetric: what is found, nothing, or a plane across an axis',
    otherwise(choice(...SYMMETRIES), 'auto'),
  ),
  view: lookedAt,
  patches: about('whether every patch is cut out as it is', otherwise(flag(), true)),
  limbs: about('whether limbs are cut off where they join the body', otherwise(flag(), false)),
  pieces: about(
    'about how many shells are wished for, whatever they stretch; as many as it takes when absent',
    optional(whole(1, MOST_PIECES)),
    'shells',
  ),
} as const;
const wanted = record(PROPOSAL_PARAMS);
export type WantedSeams = Taken<typeof wanted>;

export interface FoundSeams {
  readonly edges: readonly number[];
  readonly spared: Spared;
  /** What was found on the way; undefined where there was nothing to cut. */
  readonly seen?: Omit<ProposedEdges, 'proposed'>;
}

/**
 * Seams for few shells with little stretch, where they hide, in addition to those that are there: round patches, and through what is left.
 *
 * @param faces  of the shells that are meant; all when absent
 * @throws LockedError when all that are meant are locked
 * @throws StoppedError when it was stopped before there were any
 */
export async function proposeFor(
  uncut: HemDocument,
  {
    preset,
    stretch,
    hidden,
    symmetric,
    faces,
    view,
    patches,
    limbs,
    pieces,
  }: WantedSeams & { readonly faces?: readonly number[] },
  context: Context & { readonly jobs: Jobs },
): Promise<FoundSeams> {
  const most = stretch ?? PRESETS[preset].most;
  const round = patches ? roundPatches(uncut, faces && knownFaces(uncut.model.mesh, faces)) : [];
  const spared = await sparedFaces(uncut, faces, round, most, context);
  const document = cutAt(uncut, round);
  const shells = shellsOf(document);
  const all = faces ? [...new Set(faces.map((f) => shells.faceShell[f]))] : worthCutting(document);
  const meant = all.filter((s) => !spared.faces[facesOfShell(shells, s)[0]]);
  if (meant.length === 0) return { edges: [], spared };
  const { proposed, ...seen } = await proposedEdges(
    document,
    meant,
    { view, symmetric, limbs, options: { ...PRESETS[preset], hidden, most, pieces } },
    context,
  );
  return { edges: [...round, ...proposed], spared, seen };
}

export interface Spared {
  /** 1 for faces of shells that are left alone. */
  readonly faces: Uint8Array;
  readonly locked: number;
  readonly good: number;
}

/**
 * The shells that no seams are proposed for: locked ones and, where all are meant, those that lie flat already as well as is asked for
 * and have no patch to be cut out.
 *
 * @param round  borders of patches that are to be cut
 * @throws LockedError when all that are chosen are locked
 */
async function sparedFaces(
  document: HemDocument,
  faces: readonly number[] | undefined,
  round: readonly number[],
  most: number,
  context: Context & { readonly jobs: Jobs },
): Promise<Spared> {
  const shells = shellsOf(document);
  const named = namedShells(document, faces ?? 'all');
  const locked = lockedOf(document, named);
  if (locked.length === named.length) throw new LockedError(locked.map((s) => nameOfShell(document, s)));
  const patched = new Set(shellsAtEdges(topologyOf(document.model).connectivity, shells, round));
  const flat = faces
    ? []
    : chosenShells(document, 'all').flatMap((s) => {
        if (patched.has(s) || facesOfShell(shells, s).some((f) => document.stale[f])) return [];
        const shell = shellOf(document, s);
        const uv = shellUv(document, shell);
        return uv ? [{ s, shell, uv }] : [];
      });
  const { jobs, signal } = context;
  const meets = await jobs.run(
    'meets-bound',
    { shells: flat.map(({ shell, uv }) => ({ shell, uv })), most },
    { signal, report: () => undefined },
  );
  const good = flat.filter((_, i) => meets[i]).map(({ s }) => s);
  const spared = new Uint8Array(shells.faceShell.length);
  for (const s of [...locked, ...good]) for (const f of facesOfShell(shells, s)) spared[f] = 1;
  return { faces: spared, locked: locked.length, good: good.length };
}

/** A shell with less than this part of the surface of the largest is a crumb. */
const CRUMB = 1e-4;

/** Shells that are no crumbs: those are named in Health, and left as they are. */
function worthCutting(document: HemDocument): number[] {
  const { mesh } = document.model;
  const { shellCount, faceShell } = shellsOf(document);
  const area = new Float64Array(shellCount);
  faceShell.forEach((s, f) => {
    area[s] += Math.hypot(...faceNormal(mesh, f));
  });
  const largest = area.reduce((most, a) => Math.max(most, a), 0);
  return [...area.keys()].filter((s) => area[s] >= CRUMB * largest);
}

/** Borders of patches that are no seams yet, in the shells of some faces and in none that is locked. */
function roundPatches(document: HemDocument, faces: readonly number[] | undefined): number[] {
  const { connectivity } = topologyOf(document.model);
  const { faceShell } = shellsOf(document);
  const chosen = faces && new Set(faces.map((f) => faceShell[f]));
  return edgesByRule(document, connectivity, 'patch', 0).filter((e) => {
    const face = connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e]]];
    return !document.seams[e] && !document.locked[face] && (chosen?.has(faceShell[face]) ?? true);
  });
}
