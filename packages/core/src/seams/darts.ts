import { type Context, heedStop } from '../progress.ts';
import { growingPath } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';
import { borders } from '../surface/borders.ts';
import { cuttable } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';
import { type BestCut, type BestCutOptions, triedCuts } from './bestCut.ts';

/** Ways that are tried, and told of. */
const MOST_TRIED = 7;
const MOST_TOLD = 4;
/** Two ways are told apart when they end at least this part of the border from one another. */
const APART = 0.08;

/**
 * Darts from a place: relief cuts to the border that leave the shell in one piece, each really laid flat, the best first. Tried are the
 * way that costs least, and those that cost least to other parts of the border, along which its places are a way apart.
 *
 * @param place  a shell vertex off the border
 * @param costOf  what a seam along an edge between two shell vertices costs
 * @returns those that lower the stretch
 * @throws StoppedError
 */
export function darts(
  shell: Shell,
  place: number,
  costOf: (a: number, b: number) => number,
  context: Context,
  options: BestCutOptions = {},
): BestCut[] {
  const { loops } = borders(shell.triangles, shell.positions.length / 3);
  const onBorder = new Set(loops.flatMap((loop) => [...loop]));
  if (onBorder.has(place)) return [];
  const knife = cuttable(shell);
  const { edgeVertices, isInterior } = knife.connectivity;
  const cost = (e: number) =>
    isInterior[e] ? costOf(edgeVertices[2 * e], edgeVertices[2 * e + 1]) : Infinity;
  // Over the border no way goes on: it has come to its end.
  const path = growingPath(knife.connectivity, place, (e) =>
    onBorder.has(edgeVertices[2 * e]) && onBorder.has(edgeVertices[2 * e + 1]) ? Infinity : cost(e),
  );
  path.grow();
  heedStop(context.signal);
  const ends = endsApart(loops, path.cost);
  const cuts = ends.map((end) =>
    straightenPath(knife.mesh, knife.connectivity, place, path.edgesTo(end), cost, {
      isFree: (v) => v === end || !onBorder.has(v),
    }),
  );
  return triedCuts(shell, knife, cuts, MOST_TOLD, context, options);
}

/** Places of borders that are reached for least, a way apart from one another along the border. */
function endsApart(loops: readonly Uint32Array[], cost: Float64Array): number[] {
  const places = loops.flatMap((loop, l) => [...loop].map((v, i) => ({ v, l, at: i / loop.length })));
  places.sort((a, b) => cost[a.v] - cost[b.v]);
  const taken: typeof places = [];
  for (const place of places) {
    if (taken.length >= MOST_TRIED || cost[place.v] === Infinity) break;
    const isNear = taken.some(({ l, at }) => {
      const far = Math.abs(at - place.at);
      return l === place.l && Math.min(far, 1 - far) < APART;
    });
    if (!isNear) taken.push(place);
  }
  return taken.map(({ v }) => v);
}
