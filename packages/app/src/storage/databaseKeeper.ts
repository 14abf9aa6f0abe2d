import type { Keeper } from '@blunt-hem/core/session/keeper';
import type { Database, ProjectRow } from './database.ts';
import { renewBase, saveAct, saveDone } from './projects.ts';
import { saving } from './saving.ts';

/** Patches that are held in memory, bytes; older ones are read back. */
const MEMORY = 256 * 2 ** 20;

/** After so many acts the base is brought up to date. */
export const LONG_TAIL = 50;

/**
 * Keeps the acts of one project in the database.
 *
 * @param row  the project as it was opened
 * @param baseAt  the act before which its base stands
 * @param stored  resolves once the project itself is stored: no act is kept before it
 */
export function databaseKeeper(
  database: Database,
  { id, firstAct }: ProjectRow,
  baseAt: number,
  stored: Promise<void> = Promise.resolve(),
): Keeper {
  let at = baseAt;
  const renewed = async (document: Parameters<Keeper['add']>[2], now: number) => {
    if (Math.abs(now - at) < LONG_TAIL) return;
    // The acts are kept: without a newer base opening takes a little longer, and that is all.
    await renewBase(database, id, document, now).then(
      () => {
        at = now;
      },
      () => undefined,
    );
  };
  return {
    memory: MEMORY,
    async add(act, index, document) {
      await stored;
      const number = firstAct + index;
      const rebase = at > number;
      await saveAct(database, id, number, act, document, rebase);
      if (rebase) at = number + 1;
      await renewed(document, firstAct + index + 1);
    },
    async move(index, document) {
      await stored;
      await saveDone(database, id, firstAct + index, document);
      await renewed(document, firstAct + index);
    },
    async patch(index) {
      const row = await saving(database.patches.get([id, firstAct + index]));
      if (!row) throw new Error(`Act ${index} has no patch.`);
      return row.patch;
    },
  };
}
