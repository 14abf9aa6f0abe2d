import { relax } from '../relax/relax.ts';
import { RELAX_STEPS } from '../relax/steps.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { isLocallyInjective } from '../unfold/isLocallyInjective.ts';
import { lscm } from '../unfold/lscm.ts';
import type { Job } from './job.ts';

export interface StripTask {
  readonly shell: Shell;
  /** Shell vertices that lie where the shell next to it has them, and their UVs. */
  readonly pins: readonly number[];
  readonly places: readonly number[];
  /** Model units to a UV unit. */
  readonly perUnit: number;
}

/** Steps by which a strip is evened out. */

/** A strip laid flat from where some of its vertices are; undefined where it would fold. */
export const layStrip: Job<'lay-strip', StripTask, Float64Array | undefined> = {
  name: 'lay-strip',
  run({ shell, pins, places, perUnit }, context) {
    if (pins.length < 2) return undefined;
    const { positions, triangles } = shell;
    const rest = restTriangles(positions, triangles);
    const start = lscm(shell, rest, { vertices: pins, uv: places }, context.signal);
    const onBorder = new Uint8Array(positions.length / 3);
    for (const loop of borders(triangles, onBorder.length).loops) for (const v of loop) onBorder[v] = 1;
    if (!isLocallyInjective(triangles, start, rest.area, onBorder)) return undefined;
    const fixed = new Uint8Array(onBorder.length);
    for (const v of pins) fixed[v] = 1;
    return relax(shell, start, { fixed, scale: perUnit, steps: RELAX_STEPS }, context).uv;
  },
};
