import { cutAt, proposedEdges, SYMMETRIES } from '../derived/proposedEdges.ts';
import { type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Connectivity } from '../mesh/connectivity.ts';
import { faceNormal } from '../mesh/normals.ts';
import { knownFaces } from '../operations/known.ts';
import { LockedError, lockedOf } from '../operations/locks.ts';
import { chosenShells, namedShells, nameOfShell } from '../operations/shellChoice.ts';
import { choice, flag, indices, number, optional, otherwise, record, whole } from '../params.ts';
import { share } from '../progress.ts';
import type { Predicted } from '../propose/predict.ts';
import { HIDDEN, MOST_PIECES, PRESETS } from '../propose/presets.ts';
import { edgesByRule } from '../seams/fromRules.ts';
import { edgeLength } from '../select/shortestPath.ts';
import type { Shell } from '../surface/shell.ts';
import { facesOfShell, shellsAtEdges } from '../surface/shells.ts';
import { USUAL_VIEW, VIEWS } from '../surface/visibility.ts';
import { type QuestionContext, question } from './question.ts';

/** A shell as it would be. */
export interface ProposedShell extends Predicted {
  /** Its least face. */
  readonly face: number;
  readonly faces: number;
  /** Proposed edges at its border. */
  readonly edges: readonly number[];
}

/** Seams that are proposed, and what would come of them. */
export interface Proposal {
  readonly edges: readonly number[];
  readonly shells: readonly ProposedShell[];
  /** Of the proposed seams, in units of the model, and as a part of how high the model stands. */
  readonly length: number;
  readonly heights: number;
  /** Part of their length that lies in the third of edges that is seen least. */
  readonly hidden: number;
  /** Edges with more than two faces, or of two that face different ways: every shell ends there, so that more is cut than need be. */
  readonly nonManifoldEdges: number;
  /** Shells that were left alone: locked ones, and those that lie as flat as was asked for. */
  readonly locked: number;
  readonly good: number;
  /** Part of their edges that have their mirror image among them; undefined without symmetry. */
  readonly symmetric?: number;
}

/** Part of the time that goes by before figures are worked out. */
const FOUND = 0.85;

/** Seams for few shells with little stretch, where they hide; nothing is cut. */
export const proposal = question({
  name: 'proposal',
  params: record({
    preset: otherwise(choice('clean', 'rough'), 'clean'),
    /** L2 stretch that is allowed; that of the preset when absent. */
    stretch: optional(number(1.005, 4)),
    /** From 0, short seams, to 1, hidden ones. */
    hidden: otherwise(number(0, 1), HIDDEN),
    symmetric: otherwise(choice(...SYMMETRIES), 'auto'),
    /** Faces of shells that are to be cut; all shells when absent. */
    faces: optional(indices),
    view: otherwise(choice(...VIEWS), USUAL_VIEW),
    /** Whether every patch is to be cut out as it is. */
    patches: otherwise(flag(), true),
    /** Whether limbs are to be cut off where they join the body. */
    limbs: otherwise(flag(), false),
    /** About how many shells are wished for, whatever they stretch; as many as it takes when absent. */
    pieces: optional(whole(1, MOST_PIECES)),
  }),
  background: true,
  async answer(
    uncut,
    { preset, stretch, hidden, symmetric, faces, view, patches, limbs, pieces },
    context,
  ): Promise<Proposal> {
    const { mesh, links } = topologyOf(uncut.model);
    const most = stretch ?? PRESETS[preset].most;
    const round = patches ? roundPatches(uncut, faces && knownFaces(mesh, faces)) : [];
    const spared = await sparedFaces(uncut, faces, round, most, context);
    const document = cutAt(uncut, round);
    const shells = shellsOf(document);
    const all = faces ? [...new Set(faces.map((f) => shells.faceShell[f]))] : worthCutting(document);
    const wanted = all.filter((s) => !spared.faces[facesOfShell(shells, s)[0]]);
    if (wanted.length === 0) return nothing(links, spared);
    const { proposed, visibility, found } = await proposedEdges(
      document,
      wanted,
      { view, symmetric, limbs, options: { ...PRESETS[preset], hidden, most, pieces } },
      { jobs: context.jobs, ...share(context, 0, FOUND) },
    );
    const edges = [...round, ...proposed];
    const after = cutAt(document, edges);
    const fresh = shellsAtEdges(links, shellsOf(after), edges);
    let done = 0;
    const figures = await Promise.all(
      fresh.map(async (s) => {
        const found = await predicted(shellOf(after, s), context);
        context.report({ fraction: FOUND + ((1 - FOUND) * ++done) / fresh.length });
        return found;
      }),
    );
    const map = shellsOf(after);
    const isProposed = new Set(edges);
    const lengthOf = (e: number) => edgeLength(mesh, links, e);
    const total = edges.reduce((sum, e) => sum + lengthOf(e), 0);
    const least = Float32Array.from(visibility.edges).sort()[Math.floor(visibility.edges.length / 3)];
    return {
      edges,
      shells: fresh.map((s, i) => {
        const faces = facesOfShell(map, s);
        const around = new Set<number>();
        for (const f of faces)
          for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++)
            if (isProposed.has(links.cornerEdge[c])) around.add(links.cornerEdge[c]);
        return { ...figures[i], face: faces[0], faces: faces.length, edges: [...around] };
      }),
      length: total,
      heights: total / heightOf(uncut),
      hidden:
        edges.reduce((sum, e) => sum + (visibility.edges[e] <= least ? lengthOf(e) : 0), 0) / (total || 1),
      nonManifoldEdges: nonManifoldEdgesOf(links),
      locked: spared.locked,
      good: spared.good,
      symmetric: found && edges.filter((e) => isProposed.has(found.edges[e])).length / (edges.length || 1),
    };
  },
});

interface Spared {
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
  context: QuestionContext,
): Promise<Spared> {
  const shells = shellsOf(document);
  const named = namedShells(document, faces ?? 'all');
  const locked = lockedOf(document, named);
  if (locked.length === named.length) throw new LockedError(locked.map((s) => nameOfShell(document, s)));
  const patched = new Set(shellsAtEdges(topologyOf(document.model).links, shells, round));
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

/** How high a model stands. */
function heightOf({ model: { mesh }, upAxis }: HemDocument): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = upAxis + 1; i < mesh.positions.length; i += 3) {
    low = Math.min(low, mesh.positions[i]);
    high = Math.max(high, mesh.positions[i]);
  }
  return high > low ? high - low : 1;
}

/** A proposal without seams. */
const nothing = (links: Connectivity, { locked, good }: Spared): Proposal => ({
  edges: [],
  shells: [],
  length: 0,
  heights: 0,
  hidden: 0,
  nonManifoldEdges: nonManifoldEdgesOf(links),
  locked,
  good,
});

/** What a shell would be like; told by a coarse look once it was stopped, for what was found by then is proposed all the same. */
async function predicted(shell: Shell, { jobs, signal }: QuestionContext): Promise<Predicted> {
  const report = () => undefined;
  const closely = signal.aborted
    ? undefined
    : await unlessStopped(jobs.run('predict', { shells: [shell] }, { signal, report }));
  const task = { shells: [shell], hastily: true };
  return (closely ?? (await jobs.run('predict', task, { signal: { aborted: false }, report })))[0];
}

async function unlessStopped<T>(work: Promise<T>): Promise<T | undefined> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof HemError && error.code === 'stopped') return undefined;
    throw error;
  }
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

function nonManifoldEdgesOf({ joined, edgeCornerStart }: Connectivity): number {
  let count = 0;
  for (let e = 0; e < joined.length; e++)
    if (!joined[e] && edgeCornerStart[e + 1] - edgeCornerStart[e] > 1) count++;
  return count;
}

/** Borders of patches that are no seams yet, in the shells of some faces and in none that is locked. */
function roundPatches(document: HemDocument, faces: readonly number[] | undefined): number[] {
  const { links } = topologyOf(document.model);
  const { faceShell } = shellsOf(document);
  const chosen = faces && new Set(faces.map((f) => faceShell[f]));
  return edgesByRule(document, links, 'patch', 0).filter((e) => {
    const face = links.cornerFace[links.edgeCorners[links.edgeCornerStart[e]]];
    return !document.seams[e] && !document.locked[face] && (chosen?.has(faceShell[face]) ?? true);
  });
}
