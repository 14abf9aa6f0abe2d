import type { Icon } from '@tabler/icons-react';
import type { ComponentType } from 'react';
import type { How, Pane } from '../../store/selection.ts';

/** Where a pointer is, or the place that keys have been moved to. */
export interface Place {
  readonly pane: Pane;
  /** Pixels of the page. */
  readonly x: number;
  readonly y: number;
  /** 0 to 1; 0.5 where the pointer cannot tell. */
  readonly pressure: number;
  /** How flat a pen lies, from 0 upright to 1; 0 for a mouse. */
  readonly tilt: number;
  /** Where it went since the last event, this place last: pens tell more places than there are frames. */
  readonly trail: readonly Pick<Place, 'x' | 'y' | 'pressure' | 'tilt'>[];
  readonly how: How;
  /** Held to do the other thing. */
  readonly ctrl: boolean;
  /** What lies there. */
  pick(): Promise<Picked | undefined>;
}

export interface Picked {
  readonly face: number;
  readonly edge: number;
  readonly shell: number;
  /** The point of the flat that is nearest: its least corner. */
  readonly point: number;
  /** Nearest of the face; unknown where keys pointed at it. */
  readonly vertex?: number;
  /** Where it was met: on the model in its own axes, on the Board u, v, 0. */
  readonly place?: readonly [number, number, number];
}

/** What a hand holds from press to drop. */
export interface Grip {
  /** A hand that presses without moving does something too, and is not just a click. */
  readonly stillCounts?: true;
  move(to: Place): void;
  drop(to: Place): void;
  /** The wheel was turned meanwhile, by so many pixels; without it the wheel does what it always does. */
  wheel?(pixels: number): void;
  /** The pointer was lost, or Escape pressed: all is as before. */
  cancel(): void;
}

/**
 * A way the pointer works. Mouse, pen and keys reach it alike; the panes know nothing of tools beyond this. What it shows while it
 * works it puts into the store or into a picture's slot, for layers to draw.
 */
export interface Tool {
  readonly name: string;
  readonly label: string;
  /** What it does, for Help. */
  readonly help: string;
  readonly key: string;
  readonly icon: Icon;
  readonly panes: readonly Pane[];
  hover?(at: Place): void;
  /** The pointer is over neither pane. */
  leave?(): void;
  click?(at: Place): void;
  double?(at: Place): void;
  /**
   * A press of the main button.
   *
   * @returns what the hand holds; undefined when the hand holds the view
   */
  press?(at: Place): Grip | undefined | Promise<Grip | undefined>;
  /** Keys that are its own while it is in hand; false where one does nothing now, and means what it means elsewhere. */
  readonly keys?: Readonly<Record<string, () => boolean>>;
  /** It is put away. */
  leaveHand?(): void;
  /** Its settings, shown under its button while it is in hand. */
  readonly Settings?: ComponentType;
}
