import { usualDensity } from '@blunt-hem/core/inspect/densities';
import { IconGridPattern } from '@tabler/icons-react';
import { interpolatePRGn } from 'd3-scale-chromatic';
import { factor, type Known, type Overlay } from './overlay.ts';

/** Natural logarithm at either end: half and double. */
const REACH = Math.log(2);

/** How fine the texture is on each shell, beside what most of the surface has. */
export const density: Overlay = {
  name: 'density',
  label: 'Density',
  icon: IconGridPattern,
  title: 'Texture scale',
  values: (known) => valuesOf(known),
  smooth: () => undefined,
  place: (value) => 0.5 + (0.5 * value) / REACH,
  colour: interpolatePRGn,
  legend: (reach) => [`coarser ${factor(2 ** reach)}`, 'as most', `finer ${factor(2 ** reach)}`],
  anchor: 0.5,
};

let last: { readonly of: readonly unknown[]; readonly values: Float32Array } | undefined;

/** Of every triangle, worked out once for what is known. */
function valuesOf({ shells, flat, model }: Known): Float32Array | undefined {
  if (!flat || !model || shells.some(({ unfolded, stretch }) => unfolded && !stretch)) return undefined;
  const of = [shells, flat, model];
  if (last?.of.every((each, i) => each === of[i])) return last.values;
  const area = Float64Array.from(shells, ({ stretch }) => stretch?.area ?? 0);
  const own = Float64Array.from(shells, ({ stretch }) =>
    stretch ? Math.sqrt(stretch.uvArea / stretch.area) : Number.NaN,
  );
  const usual = usualDensity({ density: own, area }) ?? 1;
  const values = Float32Array.from(model.triangleFace, (f) => Math.log(own[flat.faceShell[f]] / usual) || 0);
  last = { of, values };
  return values;
}
