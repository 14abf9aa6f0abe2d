import type { Mesh } from '../mesh/mesh.ts';
import { type HemDocument, shellsOf } from './document.ts';

/** The model cut open along its seams: faces and corners keep their numbers, a vertex that lies in several places of the flat is several. */
export function meshOfShells(document: HemDocument): Mesh {
  const { faceStart, cornerVertex, positions } = document.model.mesh;
  const { cornerWedge, wedgeStart, shellCount } = shellsOf(document);
  const open = new Float64Array(3 * wedgeStart[shellCount]);
  cornerWedge.forEach((w, c) => {
    for (let k = 0; k < 3; k++) open[3 * w + k] = positions[3 * cornerVertex[c] + k];
  });
  return { positions: open, faceStart, cornerVertex: cornerWedge };
}
