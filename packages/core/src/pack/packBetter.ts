import type { Context } from '../progress.ts';
import { cellsOf, finenessOf } from './fineness.ts';
import { growTogether } from './growTogether.ts';
import { type PackOptions, type PackShell, turningOf } from './packShell.ts';
import { pieceOf } from './pieces.ts';
import { type Placement, placementsOf } from './placement.ts';
import { type Places, placesFor } from './places.ts';
import { shapeOf } from './shape.ts';

export interface BetterOptions extends PackOptions {
  readonly seed: number;
  /** Rounds of moves; see `separate`. */
  readonly rounds: number;
}

export interface Better {
  readonly placements: readonly Placement[];
  /** Whether no layout whatever lets them be larger. */
  readonly isGreatest: boolean;
}

/** Part of a texel by which the search lets pieces come too near, before exact distances are seen to. */
const SLACK = 0.1;

/**
 * A layout made better for some rounds; see `growTogether`.
 *
 * @param start  clear of one another
 */
export function packBetter(
  shells: readonly PackShell[],
  start: readonly Placement[],
  options: BetterOptions,
  context: Context,
): Better {
  const { frame, gap, texel, most = Infinity, seed, rounds } = options;
  const first = shells.findIndex(({ locked }) => !locked);
  if (first < 0) return { placements: start, isGreatest: true };
  const shapes = shells.map(shapeOf);
  const fineness = finenessOf(shapes, shells, options, start[first].scale, cellsOf(shells));
  const pieces = shapes.map((shape, i) => pieceOf(shape, fineness[i]));
  const places = placesFor(shells.length);
  start.forEach((each, i) => {
    places.u[i] = each.u;
    places.v[i] = each.v;
    places.angle[i] = each.angle;
    places.scale[i] = each.scale;
  });
  const area = shapes.reduce((sum, shape, i) => sum + (shells[i].locked ? 0 : shape.area), 0);
  const room = (frame[2] - frame[0]) * (frame[3] - frame[1]);
  const isGreatest = growTogether(
    pieces,
    places,
    {
      frame,
      gap,
      turning: shells.map((shell, i) => turningOf(shell, shapes[i])),
      locked: shells.map(({ locked }) => locked === true),
      most,
      seed,
      rounds,
      slack: SLACK * texel,
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
