import { shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { uvChange } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { choice, flag, number, otherwise, record, whole } from '../../params.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { operation } from '../operation.ts';
import { placedChange } from './keepPlaces.ts';
import { flatShell, placed } from './placement.ts';

/** Lays all unfolded shells into the unit tile, as large as they go, without overlap. */
export const pack = operation({
  name: 'pack',
  stage: 'arrange',
  params: record({
    /** Texture size and padding, pixels. */
    size: otherwise(whole(16, 16_384), 2048),
    padding: otherwise(number(0, 512), 8),
    turning: otherwise(choice('quarter', 'none'), 'quarter'),
    /** All shells at one texture scale first. */
    equalDensity: otherwise(flag(), true),
  }),
  label: ({ padding, size }) => `Pack with ${padding} px padding at ${size} px`,
  doing: 'Packing',
  figure: (used) => `trying to cover ${Math.round(100 * used)} % of the tile`,
  async run(document, { equalDensity, ...options }, context) {
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
    const shells = work.map(({ shell, uv }) => flatShell(shell.triangles, uv));
    const placements = await context.jobs.run('pack', { shells, options }, context);
    const uvOf = new Map(work.map(({ s, uv }, i) => [s, placed(uv, placements[i])]));
    return { changes: [uvChange(document, uvOf), placedChange(document, 1)], notes: [] };
  },
});
