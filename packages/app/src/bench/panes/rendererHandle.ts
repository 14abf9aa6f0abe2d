import type { PaneRenderer } from './renderer.ts';

/** The renderer of the open Bench, for what is not a component: framing and keeping the view. */
export const handle: { renderer?: PaneRenderer } = {};
