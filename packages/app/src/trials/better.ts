import { IconScale } from '@tabler/icons-react';
import { interpolateBrBG } from 'd3-scale-chromatic';
import type { Overlay } from '../bench/overlays/overlay.ts';

/** Natural logarithm at either end: lengths that are half as far off again. */
const REACH = Math.log(1.5);

/** Where which of two trials is better: brown where the first is, teal where the second is. */
export const better: Overlay = {
  name: 'better',
  label: 'Better',
  icon: IconScale,
  title: 'Which is better where',
  needs: ({ figures }) => [figures],
  values: () => undefined,
  smooth: () => undefined,
  place: (difference) => 0.5 + (0.5 * difference) / REACH,
  colour: interpolateBrBG,
  legend: () => ['A by ×1.5', 'the same', 'B by ×1.5'],
};
