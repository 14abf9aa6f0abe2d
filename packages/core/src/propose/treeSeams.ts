import { StoppedError } from '../errors.ts';
import type { Context } from '../progress.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import type { Shell } from '../surface/shell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { conformalShrinking, isStretched } from './layFlat.ts';
import { mendPieces, piecesOf } from './mendPieces.ts';
import { type SeamTree, seamTree } from './seamTree.ts';

/** Tips at most, and how far they are at least from the rest, as a part of the first's distance. */
const MOST_TIPS = 40;
const FAR = 0.05;
/** What is laid smaller by less counts as equal, and the first is taken: a vertex and its image differ by rounding alone. */
const SMALLER = 1e-6;
/** Steps of relaxing when it is judged whether there are tips enough. */
const RELAX_STEPS = 8;
/**
 * Logarithm of area by which a hundredth of a plain map is laid smaller than its middle, at which it is hopeless: so much, and so much more for
 * each unit of stretch that is allowed. Of what came out well it was up to 11 where L2 may be 1.05, up to 23 where it may be 1.25 (measured).
 */
const [HOPELESS, HOPELESS_EACH] = [8, 100];

/**
 * Seams as a tree that joins tips by ways that cost least, one after the other until the surface, laid flat clear of itself, stretches no more than is allowed
 * (Sheffer, Hart 2002). A tip is the place that a conformal map lays smallest (`conformalShrinking`, in the place of their curvature), and until there is one
 * to lay flat, the place farthest from the border and the tree. Then what still stretches is darted, or cut up. Of a surface that
 * is its own image, so is the tree.
 *
 * @param costs  what a seam along each edge costs
 * @param most  L2 stretch that no shell may exceed
 * @returns 1 for every cut edge, every shell a disc that lies flat, or where it was stopped, that may; undefined where this way leads to none
 * @throws StoppedError where it was stopped before there were discs
 */
export function treeSeams(
  surface: CoarseSurface,
  costs: Float64Array,
  most: number,
  context: Context,
): Uint8Array | undefined {
  const tree = seamTree(surface, costs);
  const { seams } = tree;
  if (tree.vertices.size === 0) return undefined;
  try {
    reachTips(surface, tree, most, context.signal);
    return mendPieces(surface, tree, costs, most, context) ? seams : undefined;
  } catch (error) {
    const areDiscs = () => piecesOf(surface, seams).every((shell) => shellTopology(shell).kind === 'disk');
    if (!(error instanceof StoppedError) || !seams.includes(1) || !areDiscs()) throw error;
    return seams;
  }
}

/** Cuts to one tip after the other, as long as there are too few, and one is worth a cut. */
function reachTips(surface: CoarseSurface, tree: SeamTree, most: number, signal: Context['signal']): void {
  const passedOver = new Set<number>();
  let reach = 0;
  for (let k = 0; k < MOST_TIPS; k++) {
    const pieces = piecesOf(surface, tree.seams);
    if (!needsTip(pieces[0], most, signal)) return;
    const tipShrunk = mostShrunk(surface, pieces, (v) => tree.vertices.has(v) || passedOver.has(v), signal);
    // What is laid smallest counts as far off.
    const [tip, far] =
      tipShrunk === undefined ? tree.farthest((v) => !passedOver.has(v)) : [tipShrunk, reach];
    if (tip < 0 || far < FAR * reach) return;
    reach = Math.max(reach, far);
    if (!tree.cutTo(tip)) passedOver.add(tip);
  }
}

/** Whether there are too few tips yet. */
function needsTip(shell: Shell, most: number, signal: Context['signal']): boolean {
  if (shellTopology(shell).kind !== 'disk' || isHopeless(shell, most, signal)) return true;
  return isStretched(shell, { most, relaxSteps: RELAX_STEPS }, signal) ?? true;
}

/** Whether the plain map shrinks what is far off so much that no relaxing brings it back, which need not be tried. */
function isHopeless(shell: Shell, most: number, signal: Context['signal']): boolean {
  const shrinking = conformalShrinking(shell, signal)?.sort();
  if (!shrinking) return false;
  const at = (part: number) => shrinking[Math.floor(part * shrinking.length)];
  return at(0.99) - at(0.5) > HOPELESS + HOPELESS_EACH * (most - 1);
}

/** The vertex that is laid smallest, once the surface can be laid flat in one piece; undefined before. */
function mostShrunk(
  { mesh }: CoarseSurface,
  [shell, second]: readonly Shell[],
  isOut: (vertex: number) => boolean,
  signal: Context['signal'],
): number | undefined {
  if (second || shellTopology(shell).kind !== 'disk') return undefined;
  const shrinking = conformalShrinking(shell, signal);
  let best = -1;
  for (let v = 0; shrinking && v < shrinking.length; v++) {
    if (isOut(mesh.cornerVertex[shell.vertexCorner[v]])) continue;
    if (best < 0 || shrinking[v] > shrinking[best] + SMALLER) best = v;
  }
  return best < 0 ? undefined : mesh.cornerVertex[shell.vertexCorner[best]];
}
