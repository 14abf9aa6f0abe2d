import { type HemDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { isLocked } from '../../document/holds.ts';
import { cornerUv, uvChange, uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { choice, flag, number, otherwise, record, whole } from '../../params.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { LockedError, leftLocked } from '../locks.ts';
import { operation } from '../operation.ts';
import { nameOfShell } from '../shellChoice.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';
import { layRound } from './layAfresh.ts';
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
    const locked: number[] = [];
    const work = Array.from({ length: shellsOf(document).shellCount }, (_, s) => s).flatMap((s) => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell);
      if (!uv) return [];
      if (isLocked(document, s)) {
        locked.push(s);
        return [];
      }
      const area = surfaceArea(shell.positions, shell.triangles);
      const flat = Math.abs(signedArea(shell.triangles, uv));
      const factor = equalDensity && flat > 0 && area > 0 ? Math.sqrt(area / flat) : 1;
      return [{ s, shell, uv: uv.map((x) => x * factor) }];
    });
    if (work.length === 0) throw nothingToPack(document, locked);
    const uvOf = new Map<number, Float64Array>();
    if (locked.length > 0) {
      // What is locked has a scale already.
      const scale = equalDensity ? lockedDensity(document, locked) : 1;
      for (const { s, uv } of work)
        uvOf.set(
          s,
          uv.map((x) => scale * x),
        );
      const next = cornerUv(document, uvOf);
      const gap = options.padding / options.size;
      const notes = layRound(document, next, [...uvOf.keys()], locked, gap);
      return {
        changes: [uvDifference(document, next), placedChange(document, 1)],
        notes: [...notes, ...leftLocked(locked.length), ...placingNotes(document)],
      };
    }
    const shells = work.map(({ shell, uv }) => flatShell(shell.triangles, uv));
    const placements = await context.jobs.run('pack', { shells, options }, context);
    work.forEach(({ s, uv }, i) => {
      uvOf.set(s, placed(uv, placements[i]));
    });
    return {
      changes: [uvChange(document, uvOf), placedChange(document, 1)],
      notes: placingNotes(document),
    };
  },
});

const nothingToPack = (document: HemDocument, locked: readonly number[]): HemError =>
  locked.length > 0
    ? new LockedError(locked.map((s) => nameOfShell(document, s)))
    : new HemError('nothing-unfolded', 'Nothing to pack: unfold a shell first.');

/** Flat length per length on the model of locked shells together. */
function lockedDensity(document: HemDocument, locked: readonly number[]): number {
  const [area, flat] = locked.reduce(
    ([area, flat], s) => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell) as Float64Array;
      return [
        area + surfaceArea(shell.positions, shell.triangles),
        flat + Math.abs(signedArea(shell.triangles, uv)),
      ];
    },
    [0, 0],
  );
  return area > 0 && flat > 0 ? Math.sqrt(flat / area) : 1;
}
