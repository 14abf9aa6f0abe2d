import type { Icon } from '@tabler/icons-react';
import type { ScaleAgainst } from '../../storage/looks.ts';
import type { BenchStore } from '../../store/bench.ts';
import type { BenchFigures } from '../../worker/protocol.ts';

/** What overlays are made from. */
export interface Known
  extends Pick<
    BenchStore,
    | 'visibility'
    | 'direction'
    | 'patches'
    | 'shells'
    | 'flat'
    | 'model'
    | 'scaleAgainst'
    | 'chosenScale'
    | 'tiles'
  > {
  readonly figures: StretchBuffers | undefined;
  /** Triangles that the figures are of; all when absent. */
  readonly triangles?: Uint32Array;
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
  /** What it shows hangs on these values alone: it is drawn anew when one of them differs, and not otherwise. */
  needs(known: Known): readonly unknown[];
  /** Whether it can show the stretch of what is under the hand. */
  readonly ofStretch?: true;
  /** What it shows of every triangle, or evened out, of every corner of one; undefined where only the other is known, or neither yet. */
  values(known: Known): Float32Array | undefined;
  smooth(known: Known): Float32Array | undefined;
  /** Where a value lies on the ramp: 0 to 1, and beyond for what is off its ends. */
  place(value: number): number;
  /** Colour of a place on the ramp. */
  colour(place: number): string;
  /**
   * Under the ramp: at its left end, in its middle, at its right end. Without it there is no legend.
   *
   * @param reach  how far the ends are out, as a part of the usual
   * @param against  what the scale of shells is measured against
   */
  legend?(reach: number, against?: ScaleAgainst): readonly [string, string, string];
  /** Place on the ramp that stays where the hand draws its ends out or in; without it they are fixed. */
  readonly anchor?: number;
  /** Whether there is anything that it could show; always, when absent. */
  isOffered?(known: Known): boolean;
  /** Said where there is not. */
  readonly missing?: string;
  /** Whether it shows on faces that are not unfolded too. */
  readonly everywhere?: true;
}

/** Where a value lies on the ramp with its ends drawn out. */
export const placeAt = ({ place, anchor }: Overlay, reach: number, value: number): number =>
  anchor === undefined ? place(value) : anchor + (place(value) - anchor) / reach;

/** A factor at an end of a ramp: “×2”. */
export const factor = (x: number): string => `×${Number(x.toPrecision(2))}`;
