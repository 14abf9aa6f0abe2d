import { angle } from './angle.ts';
import { area } from './area.ts';
import { both } from './both.ts';
import { density } from './density.ts';
import { direction } from './direction.ts';
import { exposure } from './exposure.ts';
import type { Known, Overlay } from './overlay.ts';
import { patches } from './patches.ts';
import { weights } from './weights.ts';

/** Every overlay, in the order in which a key goes through them. */
export const OVERLAYS: readonly Overlay[] = [
  area,
  angle,
  both,
  direction,
  density,
  exposure,
  patches,
  weights,
];

/** Those that have something to show. */
export const overlaysOffered = (known: Known): readonly Overlay[] =>
  OVERLAYS.filter((overlay) => overlay.isOffered?.(known) ?? true);

export const overlayNamed = (name: string | undefined): Overlay | undefined =>
  OVERLAYS.find((overlay) => overlay.name === name);

/** The one that is shown, if it has something to show. */
export const overlayShown = (state: Known & { readonly overlay: string | undefined }): Overlay | undefined =>
  overlaysOffered(state).find(({ name }) => name === state.overlay);
