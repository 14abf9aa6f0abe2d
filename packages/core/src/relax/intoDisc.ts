import type { Context } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { discMetric } from './discMetric.ts';
import { tutteEmbedding } from './tutte.ts';

/** Least weight of a side: a map with any weights above 0 is flip-free. */
const LEAST = 1e-2;

/**
 * A map of any shell into a circle that neither flips a triangle nor lies on itself: a Tutte embedding (Tutte 1963; Floater 1997), with each side
 * weighed by the cotangents of the angles across from it, where they are positive, in the disc metric, in which the shell is nearly a flat disc. So the far
 * part of what is nearly closed does not shrink from ring to ring below any number, as with equal weights.
 *
 * @returns `2 × vertexCount`, in a circle with the area of the shell
 * @throws StoppedError
 */
export function intoDisc(shell: Shell, signal?: Context['signal']): Float64Array {
  const { positions, triangles } = shell;
  const rest = restTriangles(positions, triangles);
  const { loops } = borders(triangles, positions.length / 3);
  const { local } = discMetric(positions, triangles, rest, loops, signal);
  const weights = new Float64Array(triangles.length);
  for (let t = 0; 3 * t < triangles.length; t++) {
    const [x2, x3, y3] = local.subarray(3 * t, 3 * t + 3);
    const double = x2 * y3;
    // Across from each side, from its corner to the next.
    const cotangents = [(x3 * (x3 - x2) + y3 * y3) / double, (x2 * x3) / double, (x2 * (x2 - x3)) / double];
    cotangents.forEach((cot, k) => {
      weights[3 * t + k] = cot > LEAST ? Math.min(cot, 1 / LEAST) : LEAST;
    });
  }
  return tutteEmbedding(shell, rest.totalArea, signal, weights);
}
