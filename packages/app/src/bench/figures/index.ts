import type { Figure } from './figure.ts';
import { density, flipped, overlaps, shells, tileUse } from './layout.ts';
import { angle, stretchL2, worstStretch } from './stretch.ts';

/** The figures of the strip, from left to right. */
export const FIGURES: readonly Figure[] = [
  shells,
  worstStretch,
  stretchL2,
  angle,
  flipped,
  overlaps,
  tileUse,
  density,
];
