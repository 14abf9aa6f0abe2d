import type { Figure } from './figure.ts';
import { collapsed, density, flipped, folded, overlaps, shells, tileUse } from './layout.ts';
import { angle, stretchL2, worstStretch } from './stretch.ts';

/** The figures of the strip, from left to right. */
export const FIGURES: readonly Figure[] = [
  shells,
  worstStretch,
  stretchL2,
  angle,
  flipped,
  collapsed,
  folded,
  overlaps,
  tileUse,
  density,
];
