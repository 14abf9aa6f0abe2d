import type { Icon } from '@tabler/icons-react';
import type { BenchStore } from '../../store/bench.ts';
import type { BenchFigures } from '../../worker/protocol.ts';

/** What overlays are made from. */
export interface Known extends Pick<BenchStore, 'exposure' | 'patches' | 'shells' | 'flat' | 'model'> {
  readonly figures: StretchBuffers | undefined;
}

export type StretchBuffers = Pick<BenchFigures, 'logArea' | 'angle' | 'smoothLogArea' | 'smoothAngle'>;

/** Something shown by colour on both panes. */
export interface Overlay {
  readonly name: string;
  /** On the bar. */
  readonly label: string;
  readonly icon: Icon;
  /** Over the legend, and on the button that shows it. */
  readonly title: string;
  /** What it shows of every triangle, or evened out, of every corner of one; undefined where only the other is known, or neither yet. */
  values(known: Known): Float32Array | undefined;
  smooth(known: Known): Float32Array | undefined;
  /** Where a value lies on the ramp: 0 to 1, and beyond for what is off its ends. */
  place(value: number): number;
  /** Colour of a place on the ramp. */
  colour(place: number): string;
  /** Under the ramp: at its left end, in its middle, at its right end. Without it there is no legend. */
  readonly legend?: readonly [string, string, string];
  /** Whether there is anything that it could show; always, when absent. */
  isOffered?(known: Known): boolean;
  /** Whether it shows on faces that are not unfolded too. */
  readonly everywhere?: true;
}
