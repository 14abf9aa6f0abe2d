import { TEXTURE } from '@blunt-hem/core/document/judgement';
import { usualDensity } from '@blunt-hem/core/inspect/densities';
import type { Known } from './overlay.ts';

/** Flat length per length on the model that counts as even: undefined while nothing lies flat. */
export function wantedDensity({
  scaleAgainst,
  chosenScale,
  shells,
}: Pick<Known, 'scaleAgainst' | 'chosenScale' | 'shells'>): number | undefined {
  return scaleAgainst === 'chosen' ? chosenScale / TEXTURE : usualDensity(densitiesOf(shells));
}

/** Texels of a 2048 texture to a unit of the model, on most of the surface. */
export function usualScale(shells: Known['shells']): number | undefined {
  const usual = usualDensity(densitiesOf(shells));
  return usual && usual * TEXTURE;
}

function densitiesOf(shells: Known['shells']) {
  return {
    area: Float64Array.from(shells, ({ stretch }) => stretch?.area ?? 0),
    density: Float64Array.from(shells, ({ stretch }) =>
      stretch ? Math.sqrt(stretch.uvArea / stretch.area) : Number.NaN,
    ),
  };
}

let last: { readonly of: readonly unknown[]; readonly values: Float32Array } | undefined;

/**
 * How much finer the texture of each triangle's shell is than wanted: the natural logarithm of a length, worked out once for what is known.
 *
 * @returns undefined while some figures are still to come
 */
export function finerThanWanted(known: Known): Float32Array | undefined {
  const { shells, flat, model, scaleAgainst, chosenScale } = known;
  if (!flat || !model || shells.some(({ unfolded, stretch }) => unfolded && !stretch)) return undefined;
  const of = [shells, flat, model, scaleAgainst, chosenScale];
  if (last?.of.every((each, i) => each === of[i])) return last.values;
  const own = densitiesOf(shells).density;
  const wanted = wantedDensity(known) ?? 1;
  const values = Float32Array.from(model.triangleFace, (f) => Math.log(own[flat.faceShell[f]] / wanted) || 0);
  last = { of, values };
  return values;
}
