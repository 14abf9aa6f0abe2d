import { IconAngle } from '@tabler/icons-react';
import { interpolateCividis } from 'd3-scale-chromatic';
import type { Overlay } from './overlay.ts';

/** Degrees at the upper end. */
const REACH = 45;

/** How far angles are off, by Tissot's angular deformation. */
export const angle: Overlay = {
  name: 'angle',
  label: 'Angle',
  icon: IconAngle,
  title: 'Angle stretch',
  ofStretch: true,
  needs: ({ figures }) => [figures],
  values: ({ figures }) => figures?.angle,
  smooth: ({ figures }) => figures?.smoothAngle,
  place: (value) => value / REACH,
  colour: interpolateCividis,
  legend: (reach) => ['0°', degrees(0.5 * reach), degrees(reach)],
  anchor: 0,
};

const degrees = (part: number): string => `${Number((part * REACH).toPrecision(3))}°`;
