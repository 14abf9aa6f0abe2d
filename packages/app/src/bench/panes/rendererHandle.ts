import type { PaneRenderer } from './renderer.ts';

/** The renderer of the open Bench, for what is not a component: framing and keeping the view. */
export const handle: { renderer?: PaneRenderer } = {};

const listeners = new Set<() => void>();

/** Called whenever a view moves, whichever renderer draws it. */
export function onViewChange(listen: () => void): () => void {
  listeners.add(listen);
  return () => listeners.delete(listen);
}

export function tellViewChange(): void {
  for (const listen of listeners) listen();
}
