import type { Context } from '../progress.ts';
import { fixedBorder } from '../relax/region.ts';
import { relax } from '../relax/relax.ts';
import { fillBorder } from '../relax/tutte.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';

/** Steps by which the inside is evened out. */
const RELAX_STEPS = 60;

/**
 * Lays a shell within its longest border, which is placed on a convex outline: by a Tutte embedding (Floater 1997), which is then relaxed with that border
 * held.
 *
 * @param border  vertices of the longest border
 * @param placed  `2 × vertexCount`, of which those of the border count, model units
 * @returns UV of every vertex; or the faces that collapse, all their corners being on one straight side, none where it folds all the same
 */
export function fillAndRelax(
  shell: Shell,
  border: Uint32Array,
  placed: Float64Array,
  context: Context,
): { readonly uv: Float64Array } | { readonly collapsed: readonly number[] } {
  const { positions, triangles, triangleFace } = shell;
  const start = fillBorder(shell, placed, context.signal);
  const rest = restTriangles(positions, triangles);
  if (!isLocallyInjective(triangles, start, rest.area, fixedBorder(shell)))
    return { collapsed: facesOnOneLine(triangles, start, triangleFace) };
  const fixed = new Uint8Array(start.length / 2);
  for (const v of border) fixed[v] = 1;
  return { uv: relax(shell, start, { fixed, scale: 1, steps: RELAX_STEPS }, context).uv };
}

/** Faces of triangles without any height along u or v. */
function facesOnOneLine(triangles: Uint32Array, uv: Float64Array, triangleFace: Uint32Array): number[] {
  const found = new Set<number>();
  for (let t = 0; t < triangleFace.length; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => triangles[3 * t + k]);
    const isFlat = [0, 1].some(
      (axis) => uv[2 * a + axis] === uv[2 * b + axis] && uv[2 * a + axis] === uv[2 * c + axis],
    );
    if (isFlat) found.add(triangleFace[t]);
  }
  return [...found];
}
