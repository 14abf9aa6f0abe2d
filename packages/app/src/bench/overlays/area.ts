import { IconResize } from '@tabler/icons-react';
import { interpolatePuOr } from 'd3-scale-chromatic';
import { finerThanWanted, scaleNeeds } from './against.ts';
import { factor, type Known, type Overlay } from './overlay.ts';

/** Natural logarithm of the area ratio at either end: half and double. */
const REACH = Math.log(2);

/** How large the texture is: squeezed is purple, stretched is brown-orange. A shell's own scale counts only where one says so. */
export const area: Overlay = {
  name: 'area',
  label: 'Area',
  icon: IconResize,
  title: 'Area stretch',
  ofStretch: true,
  needs: ({ figures, ...known }) => [figures, ...scaleNeeds(known)],
  values: (known) => known.figures && withScale(known, known.figures.logArea, 1),
  smooth: (known) => known.figures && withScale(known, known.figures.smoothLogArea, 3),
  // Little room in the flat stretches the texture on the model.
  place: (value) => 0.5 - (0.5 * value) / REACH,
  colour: interpolatePuOr,
  legend: (reach, against = 'shell') => [
    `squeezed ${factor(2 ** reach)}`,
    { shell: 'even', others: 'as most', chosen: 'as chosen' }[against],
    `stretched ${factor(2 ** reach)}`,
  ],
  anchor: 0.5,
};

const scaled = new WeakMap<Float32Array, { readonly finer: Float32Array; readonly values: Float32Array }>();

/**
 * Ratios of area with what the scale of each shell adds to them.
 *
 * @param each  values of a triangle
 */
function withScale(known: Known, logArea: Float32Array, each: number): Float32Array | undefined {
  if (known.scaleAgainst === 'shell') return logArea;
  const finer = finerThanWanted(known);
  if (!finer) return undefined;
  const last = scaled.get(logArea);
  if (last?.finer === finer) return last.values;
  const { triangles } = known;
  const values = logArea.map((value, i) => {
    const t = Math.floor(i / each);
    return value + 2 * finer[triangles ? triangles[t] : t];
  });
  scaled.set(logArea, { finer, values });
  return values;
}
