import { findEdge } from '../mesh/connectivity.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import type { Context } from '../progress.ts';
import { openShell } from '../seams/openShell.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import { extractShell, faceTriangleStart, shellFromTriangles } from '../surface/shell.ts';
import { facesOfShell, shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { layFlat } from './layFlat.ts';
import { facesOfCluster, type Joins, normalClusters } from './normalClusters.ts';

/** Every edge between two clusters that lie flat, and what opens one that is no disc. */
export function clusterSeams(
  { mesh, connectivity, image }: CoarseSurface,
  costs: Float64Array,
  most: number,
  context: Context,
): Uint8Array {
  const side = (e: number, k: number) =>
    connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]];
  const half = image?.half ?? faceCount(mesh);
  // Of a surface that is its own image, one half is clustered, and the other has the same.
  const isOpen = (e: number) => side(e, 0) < half && side(e, 1) < half;
  const joins = normalClusters(mesh, connectivity, isOpen);
  const label = flatClusters(mesh, joins, half, most, context);
  const seams = new Uint8Array(connectivity.isInterior.length);
  for (let e = 0; e < seams.length; e++) {
    if (!connectivity.isInterior[e]) continue;
    const [a, b] = [side(e, 0), side(e, 1)];
    if (a < half !== b < half) seams[e] = 1;
    else if (a < half && label[a] !== label[b]) {
      seams[e] = 1;
      if (image && image.edges[e] >= 0) seams[image.edges[e]] = 1;
    }
  }
  const triangulation = triangulate(mesh);
  const triangleStart = faceTriangleStart(mesh, triangulation);
  const shells = shellsFromSeams(mesh, connectivity, seams);
  for (let s = 0; s < shells.shellCount; s++) {
    if (facesOfShell(shells, s)[0] >= half) continue;
    const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
    const edgeOf = (a: number, b: number) =>
      findEdge(
        connectivity,
        mesh.cornerVertex[shell.vertexCorner[a]],
        mesh.cornerVertex[shell.vertexCorner[b]],
      );
    for (const [a, b] of openShell(shell, (a, b) => costs[edgeOf(a, b)], { disc: true }).edges) {
      const e = edgeOf(a, b);
      seams[e] = 1;
      if (image && image.edges[e] >= 0) seams[image.edges[e]] = 1;
    }
  }
  return seams;
}

/** The largest clusters that lie flat: from the whole down, what does not is taken apart as it was joined. */
function flatClusters(mesh: Mesh, joins: Joins, half: number, most: number, context: Context): Uint32Array {
  const label = new Uint32Array(joins.faces);
  const isPart = new Uint8Array(joins.faces + joins.parts.length / 2);
  for (const c of joins.parts) isPart[c] = 1;
  let number = 0;
  const left = [...isPart.keys()].filter((c) => !isPart[c]);
  for (let c = left.pop(); c !== undefined; c = left.pop()) {
    const faces = facesOfCluster(joins, c);
    if (faces[0] < half && faces.length > 1 && !liesFlat(mesh, faces, most, context)) {
      left.push(joins.parts[2 * (c - joins.faces)], joins.parts[2 * (c - joins.faces) + 1]);
      continue;
    }
    for (const f of faces) label[f] = number;
    number++;
  }
  return label;
}

function liesFlat(mesh: Mesh, faces: readonly number[], most: number, context: Context): boolean {
  const number = new Map<number, number>();
  const triangles = faces.flatMap((f) =>
    [0, 1, 2].map((k) => {
      const v = mesh.cornerVertex[3 * f + k];
      if (!number.has(v)) number.set(v, number.size);
      return number.get(v) as number;
    }),
  );
  const positions = [...number.keys()].flatMap((v) => [...mesh.positions.subarray(3 * v, 3 * v + 3)]);
  const shell = shellFromTriangles(positions, triangles);
  return (
    shellTopology(shell).kind === 'disk' &&
    layFlat(shell, { most, relaxSteps: 3 }, context.signal) !== undefined
  );
}
