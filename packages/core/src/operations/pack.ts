import Joi from 'joi';
import { packShells } from '../arrange/packShells.ts';
import { shellOf, shellsOf, shellUv } from '../document/document.ts';
import { type Patch, uvChange } from '../document/patch.ts';
import { HemError } from '../errors.ts';
import { surfaceArea } from '../surface/areas.ts';
import { signedArea } from '../surface/flatArea.ts';
import type { Operation } from './operation.ts';
import { flatShell, placed } from './placement.ts';

export interface PackParams {
  readonly size: number;
  readonly padding: number;
  readonly turning: 'quarter' | 'none';
  /** All shells at one texture scale first. */
  readonly equalDensity: boolean;
}

/** Lays all unfolded shells into the unit tile, as large as they go, without overlap. */
export const pack: Operation<PackParams> = {
  name: 'pack',
  schema: Joi.object({
    size: Joi.number().integer().min(16).max(16_384).default(2048),
    padding: Joi.number().min(0).max(512).default(8),
    turning: Joi.string().valid('quarter', 'none').default('quarter'),
    equalDensity: Joi.boolean().default(true),
  }),
  label: ({ padding, size }) => `Pack with ${padding} px padding at ${size} px`,
  run(document, { size, padding, turning, equalDensity }, context): Patch {
    const work = Array.from({ length: shellsOf(document).shellCount }, (_, s) => s).flatMap((s) => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell);
      if (!uv) return [];
      const area = surfaceArea(shell.positions, shell.triangles);
      const flat = Math.abs(signedArea(shell.triangles, uv));
      const factor = equalDensity && flat > 0 && area > 0 ? Math.sqrt(area / flat) : 1;
      return [{ s, shell, uv: uv.map((x) => x * factor) }];
    });
    if (work.length === 0) throw new HemError('nothing-unfolded', 'Nothing to pack: unfold a shell first.');
    const placements = packShells(
      work.map(({ shell, uv }) => flatShell(shell.triangles, uv)),
      { size, padding, turning },
      context,
    );
    const uvOf = new Map(work.map(({ s, uv }, i) => [s, placed(uv, placements[i])]));
    return { changes: [uvChange(document, uvOf)], notes: [] };
  },
};
