import type { Brush } from '@blunt-hem/core/relax/brush';
import type { Method } from '@blunt-hem/core/unfold/unfold';

/** How shells are going to be unfolded and relaxed. */
export interface FlatteningSlice {
  /** Each as it was unfolded last, where undefined. */
  readonly method: Method | undefined;
  /** From 0, angles alone, to 1, area above all. */
  readonly balance: number;
  /** Whether borders stay as they are while what is inside relaxes. */
  readonly keepBorder: boolean;
  /** Seconds after which a relax ends with the best so far; without end where undefined. */
  readonly budget: number | undefined;
  /** What the hand does to the flat, how far from it, pixels, and how strongly. */
  readonly handBrush: Brush;
  readonly handRadius: number;
  readonly handStrength: number;
  /** Whether another hand does the same on the other side of the shell's middle. */
  readonly handMirrored: boolean;
  /** Where the brush is on the page, and its radius, pixels. */
  readonly ring: readonly [x: number, y: number, radius: number] | undefined;
}

export const flatteningSlice: FlatteningSlice = {
  method: undefined,
  balance: 0.5,
  keepBorder: false,
  budget: undefined,
  handBrush: 'push',
  handRadius: 60,
  handStrength: 0.5,
  handMirrored: false,
  ring: undefined,
};
