import { IconArrowsMove } from '@tabler/icons-react';
import { interpolateBrBG } from 'd3-scale-chromatic';
import { factor, type Overlay } from './overlay.ts';

/** Natural logarithm at either end: twice as long the one way as the other. */
const REACH = Math.log(2);

/** Which way the texture is drawn out: up and down as it lies flat, or from side to side. */
export const direction: Overlay = {
  name: 'direction',
  label: 'Direction',
  icon: IconArrowsMove,
  title: 'Direction of stretch',
  needs: ({ direction }) => [direction],
  values: ({ direction }) => direction,
  smooth: () => undefined,
  place: (value) => 0.5 + (0.5 * value) / REACH,
  colour: interpolateBrBG,
  legend: (reach) => [`across ${factor(2 ** reach)}`, 'alike', `along ${factor(2 ** reach)}`],
  anchor: 0.5,
};
