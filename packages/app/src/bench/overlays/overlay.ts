import type { Icon } from '@tabler/icons-react';
import type { BenchFigures } from '../../worker/protocol.ts';

/** Something shown by colour on both panes. */
export interface Overlay {
  readonly name: string;
  /** On the bar. */
  readonly label: string;
  readonly icon: Icon;
  /** Over the legend, and on the button that shows it. */
  readonly title: string;
  /** What it shows of every triangle, and evened out, of every corner of one. */
  values(figures: BenchFigures): Float32Array;
  smooth(figures: BenchFigures): Float32Array;
  /** Where a value lies on the ramp: 0 to 1, and beyond for what is off its ends. */
  place(value: number): number;
  /** Colour of a place on the ramp. */
  colour(place: number): string;
  /** Under the ramp: at its left end, in its middle, at its right end. */
  readonly legend: readonly [string, string, string];
}
