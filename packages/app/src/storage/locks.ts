/** The right to write to a project: one tab has it at a time. */
export interface Lock {
  /** True once another has taken it by force. */
  readonly lost: boolean;
  release(): void;
}

/**
 * @param patience  milliseconds to wait for it: a worker that was ended lets go of its locks a moment later
 * @returns undefined when another tab has it
 */
export function lockProject(
  id: string,
  locks: LockManager = navigator.locks,
  patience = 0,
): Promise<Lock | undefined> {
  const how: LockOptions = patience > 0 ? { signal: AbortSignal.timeout(patience) } : { ifAvailable: true };
  return new Promise((resolve) => {
    const lock = { lost: false, release(): void {} };
    const held = (granted: unknown): Promise<void> | undefined => {
      resolve(granted ? lock : undefined);
      return granted ? new Promise<void>((release) => Object.assign(lock, { release })) : undefined;
    };
    locks.request(`blunt-hem-${id}`, how, held).catch((error: unknown) => {
      // Where a page may keep nothing, it gets no lock either, nor does any other.
      if ((error as Error).name === 'SecurityError') resolve(lock);
      else {
        lock.lost = true;
        resolve(undefined);
      }
    });
  });
}
