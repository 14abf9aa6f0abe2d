import type { BorderSnaps } from '@blunt-hem/core/measure/snapToBorders';
import type { Tile } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';

/** A line that took hold, from u and v to u and v. */
export type Guide = readonly [u0: number, v0: number, u1: number, v1: number];

/** Shells under the hand as they would lie, and what is near. */
export interface Moved {
  readonly box: UvBox;
  /** Boxes of shells that stay and are not far. */
  readonly others: readonly UvBox[];
  /** The tile in which they would lie. */
  readonly tile: Tile;
  /** Where their borders meet those of shells that stay. */
  readonly near: BorderSnaps;
}

/** What takes hold: by how much they are moved more. */
export interface Hold {
  readonly by: readonly [u: number, v: number];
  readonly far: number;
  readonly guide: Guide;
  /** What it is, for the artist. */
  readonly what: string;
}

/** Something under the hand that is turned. */
export interface Turned {
  /** Radians. */
  readonly angle: number;
  /** Directions of its own and of what stays that are to come to lie along one another, radians; none without chosen edges. */
  readonly own: readonly number[];
  readonly still: readonly number[];
}

/** Something that what is moved by hand takes hold of. */
export interface Snap {
  readonly name: string;
  readonly label: string;
  /** Holds in both directions at once, the nearest. */
  place?(moved: Moved): Hold | undefined;
  /** Holds in one direction: across (0) or up (1). */
  lines?(moved: Moved, axis: 0 | 1): Iterable<Hold>;
  /** Angles that hold, radians. */
  angles?(turned: Turned): Iterable<number>;
}
