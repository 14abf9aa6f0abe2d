import { applyDelta, type Delta } from '../../document/delta.ts';
import { type HemDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { meshOfShells } from '../../document/meshOfShells.ts';
import { chosenShells } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { SAME } from '../../jobs/copies.ts';
import { connectivityOf } from '../../mesh/connectivity.ts';
import { about, choice, indices, otherwise, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { runsOfEdges } from '../../select/orderedRun.ts';
import { edgeLength } from '../../select/shortestPath.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { sameShape } from '../../symmetry/sameShape.ts';
import { reflatten } from '../cut/reflatten.ts';
import { changeSeams } from '../cut/seamChange.ts';
import { type OperationContext, operation } from '../operation.ts';
import { sewOver } from './sewOver.ts';

/** Joins mirrored halves down their middle: a shell with the one beside it that is its mirror image. */
export const joinHalves = operation({
  name: 'join-halves',
  stage: 'arrange',
  params: record({
    shells: about('halves, each by one of its faces: one or both of each pair', indices),
    lay: about(
      'whether what is joined is laid flat anew, or both halves stay as they are laid and one comes over to the other',
      otherwise(choice('anew', 'over'), 'anew'),
    ),
  }),
  label: ({ shells }, document) =>
    `Join ${plural(chosenShells(document, shells).length, 'shell')} down the middle`,
  doing: 'Joining halves',
  followUps: reflatten,
  async run(document, { shells, lay }, context) {
    const middles = middlesOf(document, chosenShells(document, shells));
    if (middles.length === 0)
      throw new HemError(
        'no-halves',
        'None of these shells meets its mirror image along a seam: choose both halves, or sew the seam between them.',
      );
    if (lay === 'anew') {
      const { changes, notes } = changeSeams(document, middles.flat(), 0);
      return { changes, notes: [`Joined ${plural(middles.length, 'pair')} of halves.`, ...notes] };
    }
    return broughtOver(document, middles, context);
  },
});

async function broughtOver(
  document: HemDocument,
  middles: readonly (readonly number[])[],
  context: OperationContext,
): Promise<Delta> {
  const changes: Delta['changes'][number][] = [];
  const notes: string[] = [];
  let now = document;
  for (const edges of middles) {
    const delta = await sewOver.run(now, { edges }, context);
    now = applyDelta(now, delta);
    changes.push(...delta.changes);
    notes.push(...delta.notes);
  }
  return { changes, notes };
}

/** The seam down the middle of each pair of halves, of which one at least is among some shells. */
function middlesOf(document: HemDocument, chosen: readonly number[]): number[][] {
  const { connectivity } = topologyOf(document.model);
  const { edgeCorners, edgeCornerStart, cornerFace, isInterior } = connectivity;
  const { faceShell } = shellsOf(document);
  const wanted = new Set(chosen);
  const shared = new Map<string, { readonly s: number; readonly t: number; readonly edges: number[] }>();
  document.seams.forEach((seam, e) => {
    if (!seam || !isInterior[e]) return;
    const [a, b] = [0, 1].map((k) => faceShell[cornerFace[edgeCorners[edgeCornerStart[e] + k]]]);
    if (a === b || !(wanted.has(a) || wanted.has(b))) return;
    const [s, t] = a < b ? [a, b] : [b, a];
    const known = shared.get(`${s} ${t}`);
    if (known) known.edges.push(e);
    else shared.set(`${s} ${t}`, { s, t, edges: [e] });
  });
  const mesh = meshOfShells(document);
  const open = connectivityOf(mesh);
  const taken = new Set<number>();
  const found: number[][] = [];
  for (const { s, t, edges } of shared.values()) {
    if (taken.has(s) || taken.has(t)) continue;
    const [one, other] = [s, t].map((each) => facesOfShell(shellsOf(document), each));
    const same = sameShape(mesh, open, one, other, SAME, [true]);
    // Two that were chosen together are joined whether or not they are alike.
    if (!same && !(wanted.size === 2 && wanted.has(s) && wanted.has(t))) continue;
    taken.add(s).add(t);
    found.push(longestRun(document, edges));
  }
  return found;
}

/** Of several seams between two shells only one is joined: with more they would close to a tube. */
function longestRun(document: HemDocument, edges: readonly number[]): number[] {
  const { mesh, connectivity } = topologyOf(document.model);
  let [longest, most]: [readonly number[], number] = [[], -1];
  for (const run of runsOfEdges(connectivity, edges)) {
    const length = run.edges.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0);
    if (length > most) [longest, most] = [run.edges, length];
  }
  return [...longest];
}
