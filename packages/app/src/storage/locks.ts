/** The right to write to a project: one tab has it at a time. */
export interface Lock {
  /** True once another has taken it by force. */
  readonly lost: boolean;
  release(): void;
}

/** @returns undefined when another tab has it */
export function lockProject(id: string, locks: LockManager = navigator.locks): Promise<Lock | undefined> {
  return new Promise((resolve) => {
    const lock = { lost: false, release(): void {} };
    const held = (granted: unknown): Promise<void> | undefined => {
      resolve(granted ? lock : undefined);
      return granted ? new Promise<void>((release) => Object.assign(lock, { release })) : undefined;
    };
    locks.request(`blunt-hem-${id}`, { ifAvailable: true }, held).catch(() => {
      lock.lost = true;
    });
  });
}
