import { IconResize } from '@tabler/icons-react';
import { interpolatePuOr } from 'd3-scale-chromatic';
import { factor, type Overlay } from './overlay.ts';

/** Natural logarithm of the area ratio at either end: half and double. */
const REACH = Math.log(2);

/** How large the texture is: squeezed is purple, stretched is brown-orange. A shell's own scale does not count. */
export const area: Overlay = {
  name: 'area',
  label: 'Area',
  icon: IconResize,
  title: 'Area stretch',
  values: ({ figures }) => figures?.logArea,
  smooth: ({ figures }) => figures?.smoothLogArea,
  // Little room in the flat stretches the texture on the model.
  place: (value) => 0.5 - (0.5 * value) / REACH,
  colour: interpolatePuOr,
  legend: (reach) => [`squeezed ${factor(2 ** reach)}`, 'even', `stretched ${factor(2 ** reach)}`],
  anchor: 0.5,
};
