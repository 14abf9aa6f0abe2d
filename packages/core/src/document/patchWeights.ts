import { areaOfTriangle } from '../surface/areas.ts';
import type { Shell } from '../surface/shell.ts';
import type { HemDocument } from './document.ts';

/** Bounds of the weight of a patch. */
export const WEIGHTS = { least: 1 / 16, most: 16 } as const;

type Weighed = Pick<HemDocument, 'patches' | 'patchWeights'>;

/** How much finer than the rest the texture is to be on a face. */
export const weightOfFace = ({ patches, patchWeights }: Weighed, face: number): number =>
  patchWeights[patches[face] - 1] ?? 1;

/** The same of a shell, which has one scale: the mean over its surface. */
export function weightOfShell(document: Weighed, { positions, triangles, triangleFace }: Shell): number {
  if (document.patchWeights.length === 0) return 1;
  let [sum, all] = [0, 0];
  for (let t = 0; t < triangleFace.length; t++) {
    const area = areaOfTriangle(positions, triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]);
    sum += area * weightOfFace(document, triangleFace[t]);
    all += area;
  }
  return all > 0 ? sum / all : 1;
}
