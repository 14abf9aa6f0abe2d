import { StoppedError } from '../errors.ts';
import { connectivity, findEdge } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import type { Context } from '../progress.ts';
import { cutGraph, systemOfLoops } from '../seams/cutGraph.ts';
import { growingPath } from '../select/shortestPath.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import { extractShell, faceTriangleStart, type Shell } from '../surface/shell.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { clusterSeams } from './clusterSeams.ts';
import { conformalShrinking, isStretched } from './layFlat.ts';
import { mending } from './mend.ts';
import { ofOneSide } from './ofOneSide.ts';

/** Tips at most, and how far they are at least from the rest, as a part of the first's distance. */
const MOST_TIPS = 40;
const FAR = 0.05;
/** What is farther, or laid smaller, by less counts as equal, and the first is taken: a vertex and its image differ by rounding alone. */
const [FARTHER, SMALLER] = [1 + 1e-6, 1e-6];
/** Steps of relaxing when it is judged whether there are tips enough. */
const RELAX_STEPS = 8;
/**
 * Logarithm of area by which a hundredth of a plain map is laid smaller than its middle, at which it is hopeless: so much, and so much more for
 * each unit of stretch that is allowed. Of what came out well it was up to 11 where L2 may be 1.05, up to 23 where it may be 1.25 (measured).
 */
const [HOPELESS, HOPELESS_EACH] = [8, 100];
/** Cuts at most by which shells are mended. */
const MOST_CUTS = 60;

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
  const { mesh, links, image } = surface;
  const { edgeVertices, joined } = links;
  const seams = new Uint8Array(joined.length);
  const onTree = new Set<number>();
  for (let e = 0; e < joined.length; e++)
    if (!joined[e]) for (const k of [0, 1]) onTree.add(edgeVertices[2 * e + k]);
  // Borders are joined and handles opened before anything else.
  cutAlong(
    cutGraph(
      links,
      systemOfLoops(mesh, links, 0, (e) => costs[e], true),
    ),
  );
  const sideOf = sidesOfMirror(surface);
  const isMiddle = (v: number) => image?.vertices[v] === v;
  const vertices = mesh.positions.length / 3;
  const farthest = (from: Iterable<number>, isAllowed: (v: number) => boolean): readonly [number, number] => {
    const distance = distanceFrom(mesh.positions, mesh.cornerVertex, from);
    let best = -1;
    for (let v = 0; v < vertices; v++)
      if (isAllowed(v) && distance[v] < Infinity && (best < 0 || distance[v] > FARTHER * distance[best]))
        best = v;
    return [best, best < 0 ? 0 : distance[best]];
  };
  if (onTree.size === 0) {
    const [first] = farthest([mesh.cornerVertex[0]], (v) => !image || isMiddle(v));
    if (first < 0) return undefined;
    onTree.add(first);
  }
  const passedOver = new Set<number>();
  let reach = 0;
  try {
    reachTips();
    return mended() ? seams : undefined;
  } catch (error) {
    const areDiscs = () =>
      shellsOf(mesh, surface, seams).every((shell) => shellTopology(shell).kind === 'disk');
    if (!(error instanceof StoppedError) || !seams.includes(1) || !areDiscs()) throw error;
    return seams;
  }

  function reachTips(): void {
    for (let k = 0; k < MOST_TIPS && needsTip(); k++) if (!reachTip()) return;
  }

  /** Whether there are too few tips yet. */
  function needsTip(): boolean {
    const [shell] = shellsOf(mesh, surface, seams);
    if (shellTopology(shell).kind !== 'disk' || isHopeless(shell)) return true;
    return isStretched(shell, { most, relaxSteps: RELAX_STEPS }, context.signal) ?? true;
  }

  /** Whether the plain map shrinks what is far off so much that no relaxing brings it back, which need not be tried. */
  function isHopeless(shell: Shell): boolean {
    const shrinking = conformalShrinking(shell, context.signal)?.sort();
    if (!shrinking) return false;
    const at = (part: number) => shrinking[Math.floor(part * shrinking.length)];
    return at(0.99) - at(0.5) > HOPELESS + HOPELESS_EACH * (most - 1);
  }

  /** Cuts to the next tip; false where there is none worth a cut. */
  function reachTip(): boolean {
    const [tip, far] = mostShrunk() ?? farthest(onTree, (v) => !passedOver.has(v));
    if (tip < 0 || far < FAR * reach) return false;
    reach = Math.max(reach, far);
    const inMiddle = isMiddle(tip);
    const ways = growingPath(links, onTree, (e) => {
      if (!joined[e]) return Infinity;
      for (const at of [0, 1]) {
        const v = edgeVertices[2 * e + at];
        // A way stays on its side, so that it does not cross its image; in the middle it is its own.
        if (image && (inMiddle ? !isMiddle(v) : sideOf[v] !== 0 && sideOf[v] !== sideOf[tip]))
          return Infinity;
      }
      return costs[e];
    });
    ways.grow(tip);
    const way = ways.edgesTo(tip);
    if (way.length === 0) passedOver.add(tip);
    cutAlong(way);
    return true;
  }

  /** The place that is laid smallest, once the surface can be laid flat; it counts as far off. */
  function mostShrunk(): readonly [number, number] | undefined {
    const [shell, second] = shellsOf(mesh, surface, seams);
    if (second || shellTopology(shell).kind !== 'disk') return undefined;
    const shrinking = conformalShrinking(shell, context.signal);
    let best = -1;
    for (let v = 0; shrinking && v < shrinking.length; v++) {
      const at = mesh.cornerVertex[shell.vertexCorner[v]];
      if (onTree.has(at) || passedOver.has(at)) continue;
      if (best < 0 || shrinking[v] > shrinking[best] + SMALLER) best = v;
    }
    return best < 0 ? undefined : [mesh.cornerVertex[shell.vertexCorner[best]], reach];
  }

  function cutAlong(edges: Iterable<number>): void {
    for (const e of edges) {
      for (const each of [e, image?.edges[e] ?? -1]) {
        if (each < 0 || !joined[each]) continue;
        seams[each] = 1;
        for (const k of [0, 1]) onTree.add(edgeVertices[2 * each + k]);
      }
    }
  }

  /** Cuts until all lies flat and clear of itself; false where that does not come about. */
  function mended(): boolean {
    const well = new Set<string>();
    for (let cuts = 0; cuts < MOST_CUTS; ) {
      const shell = shellsOf(mesh, surface, seams).find((piece) => !well.has(nameOf(piece)));
      if (!shell) return true;
      const own = meshOfShell(shell);
      const piece: CoarseSurface = { mesh: own, links: connectivity(own), vertex: new Uint32Array(0) };
      const edgeOf = (e: number) => {
        const [a, b] = [0, 1].map((k) => shell.vertexCorner[piece.links.edgeVertices[2 * e + k]]);
        return findEdge(links, mesh.cornerVertex[a], mesh.cornerVertex[b]);
      };
      const cost = Float64Array.from(piece.links.joined.keys(), (e) => costs[edgeOf(e)]);
      const found = cutOf(shell, piece, cost);
      if (found.length === 0) {
        well.add(nameOf(shell));
        continue;
      }
      cuts++;
      cutAlong(
        ofOneSide(found.map(edgeOf), (e) => sideOf[edgeVertices[2 * e]] + sideOf[edgeVertices[2 * e + 1]]),
      );
    }
    return false;
  }

  /** What makes a piece lie flat, or brings it nearer to that; nothing where it does, or nothing can. */
  function cutOf(shell: Shell, piece: CoarseSurface, cost: Float64Array): readonly number[] {
    const { kind } = shellTopology(shell);
    if (kind === 'nonManifold') return [];
    if (kind !== 'disk')
      return cutGraph(
        piece.links,
        systemOfLoops(piece.mesh, piece.links, 0, (e) => cost[e], true),
      );
    const found = mending(piece, most, context);
    if (!found) return [];
    if (found !== 'anew') return found.edges;
    const clusters = clusterSeams(piece, cost, most, context);
    return [...clusters.keys()].filter((e) => clusters[e]);
  }
}

/** A shell as it is cut: another cut makes it another. */
const nameOf = ({ triangleFace, positions }: Shell): string =>
  `${triangleFace[0]} ${triangleFace.length} ${positions.length}`;

function shellsOf(mesh: Mesh, { links }: CoarseSurface, seams: Uint8Array): Shell[] {
  const triangulation = triangulate(mesh);
  const start = faceTriangleStart(mesh, triangulation);
  const shells = shellsFromSeams(mesh, links, seams);
  return Array.from({ length: shells.shellCount }, (_, s) => s)
    .filter((s) => facesOfShell(shells, s).length > 0)
    .map((s) => extractShell(mesh, triangulation, start, shells, s));
}

/** On which side of the mirror every vertex lies: 1, −1, or 0 in the middle. */
function sidesOfMirror({ mesh, image }: CoarseSurface): Int8Array {
  const side = new Int8Array(mesh.positions.length / 3);
  if (!image) return side;
  mesh.cornerVertex.forEach((v, c) => {
    if (image.vertices[v] !== v) side[v] = c < 3 * image.half ? 1 : -1;
  });
  return side;
}
