import type { Delta } from '@blunt-hem/core/document/delta';
import type { KeptAct } from '@blunt-hem/core/document/history';
import { checksums } from '@blunt-hem/core/persistence/checksum';
import type { Persistence } from '@blunt-hem/core/session/persistence';
import type { BasePlace } from './bases.ts';
import type { Database, ProjectRow } from './database.ts';
import { readPatch } from './loadProject.ts';
import type { Lock } from './locks.ts';
import { gone, renewBase, saveActs, saveDone } from './projects.ts';
import { notSaved } from './saving.ts';
import { dropTrial, keepTrial } from './trials.ts';

/** Patches that are held in memory, bytes; older ones are read back. */
const MEMORY = 256 * 2 ** 20;

/** After so many acts the base is brought up to date. */
export const LONG_TAIL = 50;

export interface KeptAs {
  /** The project as it was opened. */
  readonly row: ProjectRow;
  readonly base: BasePlace;
  /** Of a project that is only now being stored. */
  readonly fresh?: {
    /** Resolves once it is stored: no act is kept before it. */
    readonly saved: Promise<void>;
    readonly acts: readonly KeptAct[];
  };
  readonly lock?: Pick<Lock, 'lost'>;
}

/** Keeps the acts of one project in the database; of one that could not be stored, in memory alone. */
export function databasePersistence(
  database: Database,
  { row, base: opened, fresh, lock }: KeptAs,
): Persistence {
  const { id, firstAct } = row;
  let base = opened;
  /** Whether the project is in the store. */
  const stored = async (): Promise<boolean> => {
    if (lock?.lost)
      throw notSaved(
        'lock-lost',
        'another tab has taken this project over. Go on there, or keep what is here as a new project',
      );
    return fresh
      ? fresh.saved.then(
          () => true,
          () => false,
        )
      : true;
  };
  const inMemory: Delta[] = fresh?.acts.map(({ delta }) => delta) ?? [];
  const renewed = async (document: Parameters<Persistence['add']>[2], now: number) => {
    if (Math.abs(now - base.at) < LONG_TAIL) return;
    // The acts are kept: without a newer base opening takes a little longer, and that is all.
    base = await renewBase(database, id, document, now, base).catch(() => base);
  };
  return {
    memory: MEMORY,
    async add(acts, index, document) {
      if (!(await stored())) {
        inMemory.length = index;
        inMemory.push(...acts.map(({ delta }) => delta));
        return;
      }
      const number = firstAct + index;
      const passed = base.at > number ? base : undefined;
      base = (await saveActs(database, row, number, acts, document, passed)) ?? base;
      await renewed(document, number + acts.length);
    },
    async move(index, document) {
      if (!(await stored())) return;
      await saveDone(database, row, firstAct + index, document);
      await renewed(document, firstAct + index);
    },
    async keepTrial(trial) {
      if (await stored()) await keepTrial(database, id, trial);
    },
    async dropTrial(number) {
      if (await stored()) await dropTrial(database, id, number);
    },
    async delta(index) {
      if (!(await stored())) return inMemory[index];
      try {
        return await readPatch(database, id, firstAct + index, await checksums());
      } catch (error) {
        // Nothing is damaged where nothing is left.
        if (!(await database.projects.get(id))) throw gone();
        throw error;
      }
    },
  };
}
