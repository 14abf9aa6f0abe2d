import { angle as angleOverlay } from '../overlays/angle.ts';
import { area } from '../overlays/area.ts';
import { decimal } from '../reading.ts';
import type { Figure } from './figure.ts';
import { showWorst } from './showing.ts';

export const worstStretch: Figure = {
  name: 'Worst stretch',
  read: ({ unfolded, linf }) => (unfolded ? decimal(linf, 2) : undefined),
  show: (s) => showWorst(s, 'linf', area),
};

export const stretchL2: Figure = {
  name: 'Stretch L2',
  read: ({ unfolded, l2 }) => (unfolded ? decimal(l2, 4) : undefined),
  bars: { overlay: area, histogram: ({ areaHistogram }) => areaHistogram },
  show: (s) => showWorst(s, 'l2', area),
};

export const angle: Figure = {
  name: 'Angle',
  read: ({ unfolded, angleMean }) => (unfolded ? `${decimal(angleMean, 2)}°` : undefined),
  bars: { overlay: angleOverlay, histogram: ({ angleHistogram }) => angleHistogram },
  show: (s) => showWorst(s, 'angleMean', angleOverlay),
};
