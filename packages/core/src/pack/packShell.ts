import { boxAngles } from './boxAngles.ts';
import type { Frame } from './frame.ts';
import type { FlatMesh } from './outline.ts';
import type { Shape } from './shape.ts';
import type { Turning } from './turning.ts';

/** One flat shell that is to be packed. */
export interface PackShell extends FlatMesh {
  /** How it may be turned: any way, by one of some angles (radians), or not at all where that is 0 alone. */
  readonly turning: 'free' | readonly number[];
  /** Whether it lies where it shall, at its scale: others go round it. */
  readonly locked?: boolean;
}

export interface PackOptions {
  readonly frame: Frame;
  /** Least distance between borders, and to the sides of the frame. */
  readonly gap: number;
  /** Height of a texel. */
  readonly texel: number;
  /** Scale that is not exceeded. */
  readonly most?: number;
}

/** How a shell may be turned, with the angles that are likely to do. */
export const turningOf = ({ turning }: PackShell, shape: Shape): Turning =>
  turning === 'free' ? { angles: boxAngles(shape), isFree: true } : { angles: turning, isFree: false };
