import { cutGraph, systemOfLoops } from '../seams/cutGraph.ts';
import { growingPath } from '../select/shortestPath.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';

/** What is farther by less counts as equal, and the first is taken: a vertex and its image differ by rounding alone. */
const FARTHER = 1 + 1e-6;

/**
 * Seams of a surface that hang together as a tree with its borders, on both sides of its mirror alike. At first they join its borders and
 * open its handles.
 *
 * @param costs  what a seam along each edge costs
 */
export function seamTree({ mesh, connectivity, image, ...surface }: CoarseSurface, costs: Float64Array) {
  const { edgeVertices, isInterior } = connectivity;
  const seams = new Uint8Array(isInterior.length);
  const vertices = new Set<number>();
  for (let e = 0; e < isInterior.length; e++)
    if (!isInterior[e]) for (const k of [0, 1]) vertices.add(edgeVertices[2 * e + k]);
  const sideOf = sidesOfMirror({ mesh, connectivity, image, ...surface });
  const isMiddle = (v: number) => image?.vertices[v] === v;

  const cutAlong = (edges: Iterable<number>): void => {
    for (const e of edges) {
      for (const each of [e, image?.edges[e] ?? -1]) {
        if (each < 0 || !isInterior[each]) continue;
        seams[each] = 1;
        for (const k of [0, 1]) vertices.add(edgeVertices[2 * each + k]);
      }
    }
  };
  const farthest = (from: Iterable<number>, isAllowed: (v: number) => boolean): readonly [number, number] => {
    const distance = distanceFrom(mesh.positions, mesh.cornerVertex, from);
    let best = -1;
    for (let v = 0; v < distance.length; v++)
      if (isAllowed(v) && distance[v] < Infinity && (best < 0 || distance[v] > FARTHER * distance[best]))
        best = v;
    return [best, best < 0 ? 0 : distance[best]];
  };

  cutAlong(
    cutGraph(
      connectivity,
      systemOfLoops(mesh, connectivity, 0, (e) => costs[e], true),
    ),
  );
  if (vertices.size === 0) {
    const [first] = farthest([mesh.cornerVertex[0]], (v) => !image || isMiddle(v));
    if (first >= 0) vertices.add(first);
  }

  return {
    /** 1 for every cut edge. */
    seams,
    /** On the tree or a border; none where there is nowhere to begin. */
    vertices: vertices as ReadonlySet<number>,
    /** Cuts along edges, and along their images. */
    cutAlong,
    /** On which side of the mirror the ends of an edge lie, both together: 2 to −2. */
    sideOfEdge: (e: number): number => sideOf[edgeVertices[2 * e]] + sideOf[edgeVertices[2 * e + 1]],
    /** The vertex that is farthest from the tree, and how far; −1 where there is none. */
    farthest: (isAllowed: (v: number) => boolean): readonly [number, number] => farthest(vertices, isAllowed),
    /**
     * Cuts from the tree to a tip, the way that costs least.
     *
     * @returns false where it is on the tree already, or no way leads there
     */
    cutTo(tip: number): boolean {
      const inMiddle = isMiddle(tip);
      const ways = growingPath(connectivity, vertices, (e) => {
        if (!isInterior[e]) return Infinity;
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
      cutAlong(way);
      return way.length > 0;
    },
  };
}

export type SeamTree = ReturnType<typeof seamTree>;

/** On which side of the mirror every vertex lies: 1, −1, or 0 in the middle. */
function sidesOfMirror({ mesh, image }: CoarseSurface): Int8Array {
  const side = new Int8Array(mesh.positions.length / 3);
  if (!image) return side;
  mesh.cornerVertex.forEach((v, c) => {
    if (image.vertices[v] !== v) side[v] = c < 3 * image.half ? 1 : -1;
  });
  return side;
}
