const listeners = new Set<() => void>();

/** Called whenever a view moves, whichever renderer draws it. */
export function onViewChange(listen: () => void): () => void {
  listeners.add(listen);
  return () => listeners.delete(listen);
}

export function tellViewChange(): void {
  for (const listen of listeners) listen();
}
