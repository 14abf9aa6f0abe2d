import { usualDensity } from '@blunt-hem/core/inspect/densities';
import { type Tile, texelsAt } from '@blunt-hem/core/surface/tiles';
import type { Known } from './overlay.ts';

/** Texels to a unit of the model that counts as even: undefined while nothing lies flat. */
export function wantedDensity({
  scaleAgainst,
  chosenScale,
  ...known
}: Pick<Known, 'scaleAgainst' | 'chosenScale' | 'shells' | 'tiles'>): number | undefined {
  return scaleAgainst === 'chosen' ? chosenScale : usualScale(known);
}

/** Texels to a unit of the model on most of the surface. */
export const usualScale = (known: Pick<Known, 'shells' | 'tiles'>): number | undefined =>
  usualDensity(densitiesOf(known));

/** Texels to a unit of the model on one shell; NaN while that is not known. */
export const densityOf = (
  { stretch, box }: Pick<Known['shells'][number], 'stretch' | 'box'>,
  tiles: readonly Tile[],
): number => (stretch ? texelsAt(tiles, box) * Math.sqrt(stretch.uvArea / stretch.area) : Number.NaN);

/** Texels to a unit of the model on each shell, and its surface. */
export function densitiesOf({ shells, tiles }: Pick<Known, 'shells' | 'tiles'>) {
  return {
    area: Float64Array.from(shells, ({ stretch }) => stretch?.area ?? 0),
    density: Float64Array.from(shells, (row) => densityOf(row, tiles)),
  };
}

let last: { readonly of: readonly unknown[]; readonly values: Float32Array } | undefined;

/**
 * How much finer the texture of each triangle's shell is than wanted: the natural logarithm of a length, worked out once for what is known.
 *
 * @returns undefined while some figures are still to come
 */
export function finerThanWanted(known: Known): Float32Array | undefined {
  const { shells, flat, model, scaleAgainst, chosenScale, tiles } = known;
  if (!flat || !model || shells.some(({ unfolded, stretch }) => unfolded && !stretch)) return undefined;
  const of = [shells, flat, model, scaleAgainst, chosenScale, tiles];
  if (last?.of.every((each, i) => each === of[i])) return last.values;
  const own = densitiesOf(known).density;
  const wanted = wantedDensity(known) ?? 1;
  const values = Float32Array.from(model.triangleFace, (f) => Math.log(own[flat.faceShell[f]] / wanted) || 0);
  last = { of, values };
  return values;
}

/** What the scale of shells is made from. */
export const scaleNeeds = ({
  scaleAgainst,
  chosenScale,
  shells,
  tiles,
  flat,
  model,
}: Omit<Known, 'figures'>): readonly unknown[] => [
  scaleAgainst,
  chosenScale,
  shells,
  tiles,
  flat?.faceShell,
  model,
];
