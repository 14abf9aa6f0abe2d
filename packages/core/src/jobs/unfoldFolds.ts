import { heedStop } from '../progress.ts';
import { growOverTriangles } from '../relax/growOverTriangles.ts';
import { relax } from '../relax/relax.ts';
import { removeInversions } from '../relax/removeInversions.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { signedArea } from '../surface/flatArea.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface FoldsTask {
  readonly shell: Shell;
  /** UV per shell vertex, `2 × vertexCount`. */
  readonly start: Float64Array;
  /** 1 for each vertex that must stay. */
  readonly held: Uint8Array;
}

/** Rings round what was moved that are evened out with it, and steps by which. */
const [RINGS, STEPS] = [1, 20];

/**
 * Turns faces that lie the other way than their shell the right way up, moving only what lies near them; undefined where that is not enough. A shell that lies mirrored
 * as a whole stays so.
 */
export const unfoldFolds: Job<'unfold-folds', readonly FoldsTask[], readonly (Float64Array | undefined)[]> = {
  name: 'unfold-folds',
  run: (tasks, context) =>
    tasks.map(({ shell, start, held }) => {
      heedStop(context.signal);
      const side = signedArea(shell.triangles, start) < 0 ? -1 : 1;
      const mirrored = (uv: Float64Array) => uv.map((x, i) => (i % 2 === 0 ? side * x : x));
      const upright = mirrored(start);
      const found = removeInversions(anyDiagonal(shell), upright, held, context, false);
      if (!found) return undefined;
      const near = new Uint8Array(held.length);
      for (let i = 0; i < found.length; i++) if (found[i] !== upright[i]) near[i >> 1] = 1;
      growOverTriangles(shell.triangles, near, RINGS);
      const fixed = near.map((n, v) => (n && !held[v] ? 0 : 1));
      return mirrored(relax(shell, found, { fixed, steps: STEPS }, context).uv);
    }),
};
