import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import type { Context } from '../progress.ts';
import { cutGraph, systemOfLoops } from '../seams/cutGraph.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { extractShell, faceTriangleStart, type Shell } from '../surface/shell.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { clusterSeams } from './clusterSeams.ts';
import { mending } from './mend.ts';
import { ofOneSide } from './ofOneSide.ts';
import type { SeamTree } from './seamTree.ts';

/** Cuts at most by which shells are mended. */
const MOST_CUTS = 60;

/**
 * Cuts the shells that a tree of seams leaves until all lie flat, clear of themselves, and stretch no more than is allowed.
 *
 * @param costs  what a seam along each edge costs
 * @param most  L2 stretch that no shell may exceed
 * @returns false where that does not come about
 */
export function mendPieces(
  surface: CoarseSurface,
  tree: SeamTree,
  costs: Float64Array,
  most: number,
  context: Context,
): boolean {
  const { mesh, connectivity } = surface;
  const well = new Set<string>();
  for (let cuts = 0; cuts < MOST_CUTS; ) {
    const shell = piecesOf(surface, tree.seams).find((piece) => !well.has(nameOf(piece)));
    if (!shell) return true;
    const own = meshOfShell(shell);
    const piece: CoarseSurface = { mesh: own, connectivity: connectivityOf(own), vertex: new Uint32Array(0) };
    const edgeOf = (e: number) => {
      const [a, b] = [0, 1].map((k) => shell.vertexCorner[piece.connectivity.edgeVertices[2 * e + k]]);
      return findEdge(connectivity, mesh.cornerVertex[a], mesh.cornerVertex[b]);
    };
    const cost = Float64Array.from(piece.connectivity.isInterior.keys(), (e) => costs[edgeOf(e)]);
    const found = cutOf(shell, piece, cost, most, context);
    if (found.length === 0) {
      well.add(nameOf(shell));
      continue;
    }
    cuts++;
    tree.cutAlong(ofOneSide(found.map(edgeOf), tree.sideOfEdge));
  }
  return false;
}

/** What makes a piece lie flat, or brings it nearer to that; nothing where it does, or nothing can. */
function cutOf(
  shell: Shell,
  piece: CoarseSurface,
  cost: Float64Array,
  most: number,
  context: Context,
): readonly number[] {
  const { kind } = shellTopology(shell);
  if (kind === 'nonManifold') return [];
  if (kind !== 'disk')
    return cutGraph(
      piece.connectivity,
      systemOfLoops(piece.mesh, piece.connectivity, 0, (e) => cost[e], true),
    );
  const found = mending(piece, most, context);
  if (!found) return [];
  if (found !== 'anew') return found.edges;
  const clusters = clusterSeams(piece, cost, most, context);
  return [...clusters.keys()].filter((e) => clusters[e]);
}

/** A shell as it is cut: another cut makes it another. */
const nameOf = ({ triangleFace, positions }: Shell): string =>
  `${triangleFace[0]} ${triangleFace.length} ${positions.length}`;

/** The shells that seams make of a surface of triangles. */
export function piecesOf(
  { mesh, connectivity }: { readonly mesh: Mesh; readonly connectivity: CoarseSurface['connectivity'] },
  seams: Uint8Array,
): Shell[] {
  const triangulation = triangulate(mesh);
  const start = faceTriangleStart(mesh, triangulation);
  const shells = shellsFromSeams(mesh, connectivity, seams);
  return Array.from({ length: shells.shellCount }, (_, s) => s)
    .filter((s) => facesOfShell(shells, s).length > 0)
    .map((s) => extractShell(mesh, triangulation, start, shells, s));
}
