import { byteSize, type Delta } from '../document/delta.ts';
import type { Persistence } from './persistence.ts';

/** Patches near where undo and redo stand, as many as fit; the others are read back when they are wanted. */
export function deltaMemory(persistence: Persistence) {
  const held = new Map<number, { readonly delta: Delta; readonly bytes: number }>();
  let total = 0;

  const drop = (at: number): void => {
    total -= held.get(at)?.bytes ?? 0;
    held.delete(at);
  };
  const hold = (at: number, delta: Delta): void => {
    drop(at);
    const bytes = byteSize(delta.changes);
    held.set(at, { delta, bytes });
    total += bytes;
  };
  /** Lets go of those farthest from where undo stands. */
  const keepNear = (done: number): void => {
    if (total <= persistence.memory) return;
    const farthest = [...held.keys()].sort((a, b) => Math.abs(b - done) - Math.abs(a - done));
    for (const at of farthest) {
      if (total <= persistence.memory) return;
      drop(at);
    }
  };

  return {
    /** Bytes held. */
    get bytes(): number {
      return total;
    },
    /** Takes in the newest act; what could be redone goes. */
    put(at: number, delta: Delta, done: number): void {
      for (const other of [...held.keys()]) if (other >= at) drop(other);
      hold(at, delta);
      keepNear(done);
    },
    keepNear,
    async get(at: number): Promise<Delta> {
      const found = held.get(at)?.delta;
      if (found) return found;
      const delta = await persistence.delta(at);
      hold(at, delta);
      keepNear(at);
      return delta;
    },
  };
}
