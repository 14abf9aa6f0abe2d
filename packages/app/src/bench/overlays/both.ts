import { worstStretch } from '@blunt-hem/core/measure/worstStretch';
import { IconArrowAutofitWidth } from '@tabler/icons-react';
import { interpolateYlOrBr } from 'd3-scale-chromatic';
import { factor, type Overlay, type StretchBuffers } from './overlay.ts';

/** Natural logarithm at the upper end: twice or half as long as it should be. */
const REACH = Math.log(2);

/** Area and angle in one: how far the direction is off that is off most. */
export const both: Overlay = {
  name: 'both',
  label: 'Both',
  icon: IconArrowAutofitWidth,
  title: 'Length stretch',
  ofStretch: true,
  needs: ({ figures }) => [figures],
  values: ({ figures }) => figures && worst(figures).faces,
  smooth: ({ figures }) => figures && worst(figures).smooth,
  place: (value) => value / REACH,
  colour: interpolateYlOrBr,
  legend: (reach) => ['nothing', factor(2 ** (reach / 2)), factor(2 ** reach)],
  anchor: 0,
};

/** Worked out once for figures that are looked at. */
const known = new WeakMap<StretchBuffers, { readonly faces: Float32Array; readonly smooth: Float32Array }>();

function worst(figures: StretchBuffers) {
  let made = known.get(figures);
  if (!made) {
    const { logArea, angle, smoothLogArea, smoothAngle } = figures;
    made = { faces: worstOf(logArea, angle), smooth: worstOf(smoothLogArea, smoothAngle) };
    known.set(figures, made);
  }
  return made;
}

const worstOf = (logArea: Float32Array, angle: Float32Array): Float32Array =>
  logArea.map((each, i) => worstStretch(each, angle[i]));
