import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { KeptAct } from '../document/history.ts';
import type { TrialPersistence } from '../trials/trialBook.ts';

/** Where acts and trials are kept. What has resolved is kept; what was rejected is not, and nothing else has changed. */
export interface Persistence extends TrialPersistence {
  /**
   * Keeps acts from number `at` on, all or none; whatever was kept from there on goes.
   *
   * @param document  as the last of them leaves it
   */
  add(acts: readonly KeptAct[], at: number, document: HemDocument): Promise<void>;
  /** Keeps how many acts stand. */
  move(done: number, document: HemDocument): Promise<void>;
  /** Reads back what act number `at` changed. */
  delta(at: number): Promise<Delta>;
  /** Most bytes of patches that need be in memory; the rest can be read back. */
  readonly memory: number;
}

/** Keeps nothing beyond the session itself. */
export function memoryPersistence(): Persistence {
  const patches: Delta[] = [];
  return {
    memory: 0,
    async add(acts, at) {
      patches.length = at;
      patches.push(...acts.map(({ delta }) => delta));
    },
    async move() {},
    async keepTrial() {},
    async dropTrial() {},
    async delta(at) {
      return patches[at];
    },
  };
}
