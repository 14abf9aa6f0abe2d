import { IconScale } from '@tabler/icons-react';
import { interpolatePRGn } from 'd3-scale-chromatic';
import { factor, type Overlay } from './overlay.ts';

/** Natural logarithm at either end: a quarter and four times. */
const REACH = Math.log(4);

/** How much finer than the rest the texture is to be on each patch: what the artist wishes, and packing keeps to. */
export const weights: Overlay = {
  name: 'weights',
  label: 'Weights',
  icon: IconScale,
  title: 'Weights of patches',
  everywhere: true,
  missing: 'No patch has a weight yet: say in the list of patches, at Cut, how much finer it is to be.',
  isOffered: ({ patches }) => patches.weights.some((weight) => weight !== 1),
  needs: ({ patches }) => [patches],
  values: ({ patches: { triangles, weights: times } }) =>
    triangles.map((patch) => (patch > 0 ? Math.log(times[patch - 1]) : 0)),
  smooth: () => undefined,
  place: (value) => 0.5 + (0.5 * value) / REACH,
  colour: interpolatePRGn,
  legend: (reach) => [`coarser ${factor(4 ** reach)}`, 'as the rest', `finer ${factor(4 ** reach)}`],
  anchor: 0.5,
};
