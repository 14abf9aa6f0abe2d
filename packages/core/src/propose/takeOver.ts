import type { CoarseSurface } from '../surface/coarseSurface.ts';
import type { Shell } from '../surface/shell.ts';
import type { CutUp } from './cutUp.ts';
import { type CoarseRun, ontoSurface } from './ontoSurface.ts';
import { seamRuns } from './seamRuns.ts';

/** What seams on the model cost and how long they are, edge by edge; Infinity where none may run. */
export interface Priced {
  readonly costs: Float64Array;
  readonly lengths: Float64Array;
}

/** Seams of a coarse surface as edges of the model; of two that are images of each other, one. */
export function takeOver(
  { mesh, connectivity, now, pairs, costs, lengths }: CutUp & Priced,
  shell: Shell,
  surface: CoarseSurface,
  cut: Uint8Array,
): number[] {
  const isBorder = new Uint8Array(connectivity.vertexEdgeStart.length - 1);
  for (let e = 0; e < now.length; e++)
    if (now[e] || !connectivity.isInterior[e])
      for (let k = 0; k < 2; k++) isBorder[connectivity.edgeVertices[2 * e + k]] = 1;
  const modelVertex = (v: number) => mesh.cornerVertex[shell.vertexCorner[v]];
  const runs = coarseRuns(surface, cut, modelVertex, (v) => pairs?.vertices[v] === v);
  const reach = Math.max(
    2,
    Math.ceil(1.5 * Math.sqrt(shell.triangles.length / surface.mesh.cornerVertex.length)),
  );
  return ontoSurface(mesh, connectivity, runs, costs, lengths, (v) => isBorder[v] === 1, reach).flat();
}

/** Seams of a coarse surface as runs over the vertices of the model; of two that are images of each other, one. */
function coarseRuns(
  { connectivity, vertex, image }: CoarseSurface,
  cut: Uint8Array,
  modelVertex: (v: number) => number,
  isOwnImage: (modelVertex: number) => boolean,
): CoarseRun[] {
  const onBorder = new Uint8Array(vertex.length);
  connectivity.isInterior.forEach((isInterior, e) => {
    if (!isInterior) for (let k = 0; k < 2; k++) onBorder[connectivity.edgeVertices[2 * e + k]] = 1;
  });
  const isMiddle = (v: number) => image?.vertices[v] === v;
  const seen = new Set<number>();
  const runs: CoarseRun[] = [];
  for (const { edges, ends } of seamRuns(
    connectivity,
    (e) => cut[e] === 1,
    (v) => onBorder[v] === 1 || isMiddle(v),
  )) {
    if (seen.has(edges[0])) continue;
    const vertices = [ends[0]];
    for (const e of edges) {
      if (image) seen.add(image.edges[e]);
      const at = vertices[vertices.length - 1];
      vertices.push(connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - at);
    }
    const alongMiddle = image !== undefined && edges.every((e) => image.edges[e] === e);
    runs.push({
      vertices: vertices.map((v) => modelVertex(vertex[v])),
      within: image && ((v) => isOwnImage(v) === alongMiddle),
    });
  }
  return runs;
}
