import { IconGridPattern } from '@tabler/icons-react';
import { interpolatePRGn } from 'd3-scale-chromatic';
import { finerThanWanted, scaleNeeds } from './against.ts';
import { factor, type Overlay } from './overlay.ts';

/** Natural logarithm at either end: half and double. */
const REACH = Math.log(2);

/** How fine the texture is on each shell, beside what most of the surface has or what was chosen. */
export const density: Overlay = {
  name: 'density',
  label: 'Density',
  icon: IconGridPattern,
  title: 'Texture scale',
  needs: scaleNeeds,
  values: finerThanWanted,
  smooth: () => undefined,
  place: (value) => 0.5 + (0.5 * value) / REACH,
  colour: interpolatePRGn,
  legend: (reach, against) => [
    `coarser ${factor(2 ** reach)}`,
    against === 'chosen' ? 'as chosen' : 'as most',
    `finer ${factor(2 ** reach)}`,
  ],
  anchor: 0.5,
};
