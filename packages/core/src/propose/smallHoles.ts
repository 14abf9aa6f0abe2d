import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { fillHoles } from '../mesh/fillHoles.ts';
import { loosePieces } from '../mesh/model.ts';
import { faceNormal } from '../mesh/normals.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { faceTriangleStart } from '../surface/shell.ts';
import { shellsFromSeams } from '../surface/shells.ts';
import type { ProposalTask } from './proposalTask.ts';

/** A hole is small when it is shorter round than this part of the root of the surface of its piece. */
const SMALL = 0.1;

/** The same task on a surface whose small holes are filled; itself where there are none. */
export function withoutSmallHoles(task: ProposalTask): ProposalTask {
  const { mesh, connectivity, seams, shells } = task;
  const { label, count } = loosePieces(mesh, connectivity);
  const area = new Float64Array(count);
  const piece = new Int32Array(mesh.positions.length / 3).fill(-1);
  for (let f = 0; f < label.length; f++) {
    area[label[f]] += Math.hypot(...faceNormal(mesh, f)) / 2;
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) piece[mesh.cornerVertex[c]] = label[f];
  }
  const { positions: p } = mesh;
  const filled = fillHoles(mesh, connectivity, (loop) => {
    let length = 0;
    loop.forEach((v, i) => {
      const w = loop[(i + 1) % loop.length];
      length += Math.hypot(...[0, 1, 2].map((k) => p[3 * v + k] - p[3 * w + k]));
    });
    return length < SMALL * Math.sqrt(area[piece[loop[0]]]);
  });
  if (filled === mesh) return task;
  const filledLinks = connectivityOf(filled);
  const triangulation = triangulate(filled);
  const own = new Uint8Array(filledLinks.isInterior.length);
  seams.forEach((seam, e) => {
    if (seam)
      own[findEdge(filledLinks, connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1])] = 1;
  });
  const before = shellsFromSeams(mesh, connectivity, seams);
  const after = shellsFromSeams(filled, filledLinks, own);
  const wanted = new Set(shells);
  const chosen = new Set<number>();
  for (let f = 0; f < before.faceShell.length; f++)
    if (wanted.has(before.faceShell[f])) chosen.add(after.faceShell[f]);
  return {
    ...task,
    mesh: filled,
    connectivity: filledLinks,
    triangulation,
    triangleStart: faceTriangleStart(filled, triangulation),
    seams: own,
    shells: [...chosen].sort((a, b) => a - b),
  };
}
