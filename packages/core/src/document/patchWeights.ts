import { areaOfTriangle } from '../surface/areas.ts';
import { type HemDocument, topologyOf } from './document.ts';

/** Bounds of the weight of a patch. */
export const WEIGHTS = { least: 1 / 16, most: 16 } as const;

/** How much finer than the rest the texture is to be on a face. */
export const weightOfFace = (
  { patches, patchWeights }: Pick<HemDocument, 'patches' | 'patchWeights'>,
  face: number,
): number => patchWeights[patches[face] - 1] ?? 1;

/**
 * The same of a shell, which has one scale: the mean over its surface.
 *
 * @param faces  of the shell
 */
export function weightOfFaces(document: HemDocument, faces: Uint32Array): number {
  if (document.patchWeights.length === 0) return 1;
  const { mesh, triangulation, triangleStart } = topologyOf(document.model);
  const vertex = (i: number): number => mesh.cornerVertex[triangulation.triangleCorners[i]];
  let [sum, all] = [0, 0];
  for (const f of faces)
    for (let i = 3 * triangleStart[f]; i < 3 * triangleStart[f + 1]; i += 3) {
      const area = areaOfTriangle(mesh.positions, vertex(i), vertex(i + 1), vertex(i + 2));
      sum += area * weightOfFace(document, f);
      all += area;
    }
  return all > 0 ? sum / all : 1;
}
