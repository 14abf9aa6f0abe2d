import type { Connectivity } from '../mesh/connectivity.ts';
import { growingPath } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';
import { borders } from '../surface/borders.ts';
import { cuttable } from '../surface/cutShell.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import type { Shell } from '../surface/shell.ts';
import type { Verdict } from '../surface/verdict.ts';

/** Tips of a closed piece that its opening joins, at most. */
const MOST_TIPS = 6;
/** A tip counts while it is at least this part as far from the others as the second was from the first. */
const FAR = 0.35;

/**
 * The cut that opens a ball or a tube where it hides: in a ball a tree that joins its tips, the vertices farthest from one another (farthest
 * points: Eldar, Lindenbaum, Porat, Zeevi 1997; ways over what is seen least: Sheffer, Hart 2002), in a tube the lengthwise way from one
 * border to the other.
 *
 * @param costOf  what a seam along an edge between two shell vertices costs
 * @returns two shell vertices an edge; none where the piece is neither
 */
export function openHidden(
  shell: Shell,
  { kind, genus }: Verdict,
  costOf: (a: number, b: number) => number,
): [number, number][] {
  const { mesh, links } = cuttable(shell);
  const { edgeVertices } = links;
  const costs = Float64Array.from(links.joined.keys(), (e) =>
    links.joined[e] ? costOf(edgeVertices[2 * e], edgeVertices[2 * e + 1]) : Infinity,
  );
  const cost = (e: number) => costs[e];
  const straight = (start: number, edges: readonly number[], isFree: (v: number) => boolean) =>
    straightenPath(mesh, links, start, edges, cost, { isFree });
  const { loops } = borders(shell.triangles, shell.positions.length / 3);
  let found: readonly number[] = [];
  if (kind === 'tube') {
    const paths = growingPath(links, loops[0], cost);
    paths.grow();
    const [end] = nearest(paths.cost, loops[1]);
    if (end !== undefined) {
      const edges = paths.edgesTo(end);
      const onBorder = new Set([...loops[0], ...loops[1]]);
      found = straight(startOf(links, edges, end), edges, (v) => !onBorder.has(v));
    }
  } else if (kind === 'closed' && genus === 0) found = treeOfTips();
  return found.map((e) => [edgeVertices[2 * e], edgeVertices[2 * e + 1]]);

  function treeOfTips(): number[] {
    const any = shell.triangles[0];
    const farthest = (from: Iterable<number>): readonly [number, number] => {
      const distance = distanceFrom(shell.positions, shell.triangles, from);
      let best = any;
      for (let v = 0; v < distance.length; v++)
        if (distance[v] < Infinity && distance[v] > distance[best]) best = v;
      return [best, distance[best]];
    };
    const [first] = farthest([any]);
    const onTree = new Set([first]);
    const edges: number[] = [];
    let reach = 0;
    for (let k = 1; k < MOST_TIPS; k++) {
      const [tip, far] = farthest(onTree);
      if (k === 1) reach = far;
      else if (far < FAR * reach) break;
      const paths = growingPath(links, onTree, cost);
      paths.grow(tip);
      const way = paths.edgesTo(tip);
      const start = startOf(links, way, tip);
      const run = straight(start, way, (v) => v === tip || !onTree.has(v));
      let v = start;
      for (const e of run) {
        edges.push(e);
        v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
        onTree.add(v);
      }
    }
    return edges.length > 1 ? edges : [];
  }
}

/** The vertex at which a way to `end` begins. */
function startOf({ edgeVertices }: Connectivity, edges: readonly number[], end: number): number {
  let v = end;
  for (const e of [...edges].reverse()) v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
  return v;
}

function nearest(cost: Float64Array, vertices: Iterable<number>): [number] | [] {
  let best = -1;
  for (const v of vertices) if (cost[v] < Infinity && (best < 0 || cost[v] < cost[best])) best = v;
  return best < 0 ? [] : [best];
}
