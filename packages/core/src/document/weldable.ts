import { current, type HemDocument, shellsOf, topologyOf } from './document.ts';

/** A seam whose two sides lie near each other on the Board, and the wedges that come together at either end. */
export interface WeldableEdge {
  readonly edge: number;
  readonly ends: readonly [readonly [one: number, other: number], readonly [one: number, other: number]];
}

/**
 * Seams both ends of which lie within a distance of their counterparts.
 *
 * @param edges  those that are looked at; all seams when undefined
 * @param within  heights of a tile
 */
export function weldableEdges(
  document: HemDocument,
  edges: Iterable<number> | undefined,
  within: number,
): WeldableEdge[] {
  const { edgeCorners, edgeCornerStart, nextCorner, isInterior } = topologyOf(document.model).connectivity;
  const { cornerWedge } = shellsOf(document);
  const { uv } = current(document);
  const far = (a: number, b: number): number =>
    Math.hypot(uv[2 * a] - uv[2 * b], uv[2 * a + 1] - uv[2 * b + 1]);
  const found: WeldableEdge[] = [];
  for (const edge of edges ?? document.seams.keys()) {
    if (!document.seams[edge] || !isInterior[edge]) continue;
    const a = edgeCorners[edgeCornerStart[edge]];
    const b = edgeCorners[edgeCornerStart[edge] + 1];
    // The edge runs the other way on the other side.
    if (!(far(a, nextCorner[b]) <= within && far(nextCorner[a], b) <= within)) continue;
    found.push({
      edge,
      ends: [
        [cornerWedge[a], cornerWedge[nextCorner[b]]],
        [cornerWedge[nextCorner[a]], cornerWedge[b]],
      ],
    });
  }
  return found;
}
