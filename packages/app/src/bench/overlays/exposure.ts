import { IconSun } from '@tabler/icons-react';
import { interpolateYlGnBu } from 'd3-scale-chromatic';
import type { Overlay } from './overlay.ts';

/** How much is seen of the model from where it is going to be looked at: a seam hides where it is dark. */
export const exposure: Overlay = {
  name: 'exposure',
  label: 'Seen',
  icon: IconSun,
  title: 'How much is seen',
  everywhere: true,
  needs: ({ visibility }) => [visibility],
  values: () => undefined,
  smooth: ({ visibility }) => visibility,
  place: (value) => 1 - value,
  colour: interpolateYlGnBu,
  legend: () => ['seen', '', 'hidden'],
};
