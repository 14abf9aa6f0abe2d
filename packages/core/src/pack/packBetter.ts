import type { Context } from '../progress.ts';
import { growTogether } from './growTogether.ts';
import type { PackShell } from './packShell.ts';
import { type Placement, placementsOf, placesOf } from './placement.ts';
import type { Places } from './places.ts';
import { clearingOptions, piecesOf, type SearchOptions } from './searchShells.ts';

export interface Better {
  readonly placements: readonly Placement[];
  /** Whether no layout whatever lets them be larger. */
  readonly isGreatest: boolean;
}

/**
 * A layout made better for some rounds; see `growTogether`.
 *
 * @param start  clear of one another
 */
export function packBetter(
  shells: readonly PackShell[],
  start: readonly Placement[],
  options: SearchOptions,
  context: Context,
): Better {
  const { frame, most = Infinity } = options;
  const first = shells.findIndex(({ locked }) => !locked);
  if (first < 0) return { placements: start, isGreatest: true };
  const { shapes, pieces } = piecesOf(shells, options, start[first].scale);
  const places = placesOf(start);
  const area = shapes.reduce((sum, shape, i) => sum + (shells[i].locked ? 0 : shape.area), 0);
  const room = (frame[2] - frame[0]) * (frame[3] - frame[1]);
  const isGreatest = growTogether(
    pieces,
    places,
    {
      ...clearingOptions(shells, shapes, options),
      most,
    },
    {
      signal: context.signal,
      report: ({ figure: scale = 0 }) =>
        context.report({ figure: (area * scale * scale) / room, places: flatPlaces(places) }),
    },
  );
  return { placements: placementsOf(places), isGreatest };
}

/** Four numbers a shell, as they are reported. */
function flatPlaces({ u, v, angle, scale }: Places): Float64Array {
  const flat = new Float64Array(4 * u.length);
  for (let i = 0; i < u.length; i++) flat.set([u[i], v[i], angle[i], scale[i]], 4 * i);
  return flat;
}
