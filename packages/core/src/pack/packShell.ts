import { boxAngles } from './boxAngles.ts';
import { type Frame, largestIn } from './frame.ts';
import type { FlatMesh } from './outline.ts';
import { type Shape, shapeOf } from './shape.ts';
import type { Turning } from './turning.ts';

/** One flat shell that is to be packed. */
export interface PackShell extends FlatMesh {
  /** How it may be turned: any way, by one of some angles (radians), or not at all where that is 0 alone. */
  readonly turning: 'free' | readonly number[];
  /** Whether it lies where it shall, at its scale: others go round it. */
  readonly locked?: boolean;
  /** Shells of one number are laid near each other; those without lie anywhere. */
  readonly near?: number;
}

export interface PackOptions {
  readonly frame: Frame;
  /** Least distance between borders, and to the sides of the frame. */
  readonly gap: number;
  /** Height of a texel. */
  readonly texel: number;
  /** Scale that is not exceeded. */
  readonly most?: number;
  /** Whether shells are moved no farther from where they are than they must be. */
  readonly stay?: boolean;
}

/** How a shell may be turned, with the angles that are likely to do. */
export const turningOf = ({ turning }: PackShell, shape: Shape): Turning =>
  turning === 'free' ? { angles: boxAngles(shape), isFree: true } : { angles: turning, isFree: false };

/** The greatest scale at which a shell fits a frame by itself. */
export function largestScale(shell: PackShell, { frame, gap }: PackOptions): number {
  const shape = shapeOf(shell);
  return largestIn(shape, turningOf(shell, shape), frame, gap).scale;
}
