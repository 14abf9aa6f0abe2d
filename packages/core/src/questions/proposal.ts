import { cutAt } from '../derived/proposedEdges.ts';
import { PROPOSAL_PARAMS, proposeFor, type Spared } from '../derived/seamProposal.ts';
import { type HemDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Connectivity } from '../mesh/connectivity.ts';
import { about, indices, optional, record } from '../params.ts';
import { share } from '../progress.ts';
import type { Predicted } from '../propose/predict.ts';
import { edgeLength } from '../select/shortestPath.ts';
import type { Shell } from '../surface/shell.ts';
import { facesOfShell, shellsAtEdges } from '../surface/shells.ts';
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
    ...PROPOSAL_PARAMS,
    faces: about('faces of shells that are to be cut; all shells when absent', optional(indices)),
  }),
  background: true,
  async answer(uncut, wanted, context): Promise<Proposal> {
    const { connectivity } = topologyOf(uncut.model);
    const { mesh } = uncut.model;
    const proposed = await proposeFor(uncut, wanted, { jobs: context.jobs, ...share(context, 0, FOUND) });
    const { edges, spared } = proposed;
    if (!proposed.seen) return nothing(connectivity, spared);
    const { visibility, found } = proposed.seen;
    const after = cutAt(uncut, edges);
    const fresh = shellsAtEdges(connectivity, shellsOf(after), edges);
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
    const lengthOf = (e: number) => edgeLength(mesh, connectivity, e);
    const total = edges.reduce((sum, e) => sum + lengthOf(e), 0);
    const least = Float32Array.from(visibility.edges).sort()[Math.floor(visibility.edges.length / 3)];
    return {
      edges,
      shells: fresh.map((s, i) => {
        const faces = facesOfShell(map, s);
        const around = new Set<number>();
        for (const f of faces)
          for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++)
            if (isProposed.has(connectivity.cornerEdge[c])) around.add(connectivity.cornerEdge[c]);
        return { ...figures[i], face: faces[0], faces: faces.length, edges: [...around] };
      }),
      length: total,
      heights: total / heightOf(uncut),
      hidden:
        edges.reduce((sum, e) => sum + (visibility.edges[e] <= least ? lengthOf(e) : 0), 0) / (total || 1),
      nonManifoldEdges: nonManifoldEdgesOf(connectivity),
      locked: spared.locked,
      good: spared.good,
      symmetric: found && edges.filter((e) => isProposed.has(found.edges[e])).length / (edges.length || 1),
    };
  },
});

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
const nothing = (connectivity: Connectivity, { locked, good }: Spared): Proposal => ({
  edges: [],
  shells: [],
  length: 0,
  heights: 0,
  hidden: 0,
  nonManifoldEdges: nonManifoldEdgesOf(connectivity),
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

function nonManifoldEdgesOf({ isInterior, edgeCornerStart }: Connectivity): number {
  let count = 0;
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e] && edgeCornerStart[e + 1] - edgeCornerStart[e] > 1) count++;
  return count;
}
