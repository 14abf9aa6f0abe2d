import { HemError } from '@blunt-hem/core/errors';
import { BASE, type Database, type ProjectRow } from './database.ts';
import { actKeys } from './loadProject.ts';
import { type Lock, lockProject } from './locks.ts';
import { changeRow, deleteProjects } from './projects.ts';
import { readable } from './reading.ts';
import { type KeptRow, soundRow } from './rows.ts';
import { saving } from './saving.ts';

/** A project as the Rack shows it. */
export interface RackRow
  extends Pick<
    ProjectRow,
    'id' | 'name' | 'created' | 'updated' | 'faces' | 'shells' | 'picture' | 'deleted'
  > {
  /** What was found to be damaged when it was opened, or is seen without opening it. */
  readonly damage?: string;
}

/** Every project, the last changed first. One that is garbled hides no other. */
export async function rackRows(database: Database): Promise<RackRow[]> {
  const { projects } = database;
  let rows: unknown[] | undefined = await readable(projects.toArray());
  if (!rows) {
    rows = [];
    for (const id of await projects.toCollection().primaryKeys())
      rows.push((await readable(projects.get(id))) ?? { id });
  }
  const found: RackRow[] = [];
  for (const each of rows) {
    const { row, problem } = soundRow(each);
    if (!row) continue;
    const { id, name, created, updated, faces, shells, picture, deleted } = row;
    const damage = row.damage ?? problem ?? (await damageByKeys(database, row));
    found.push({ id, name, created, updated, faces, shells, picture, deleted, damage });
  }
  return found.sort((a, b) => b.updated - a.updated);
}

/** What can be seen from the keys alone: whether everything that should be there is. */
async function damageByKeys(database: Database, row: KeptRow): Promise<string | undefined> {
  const { id } = row;
  const bases =
    (await database.records.where('[projectId+number]').equals([id, BASE]).count()) +
    (await database.bases.where('projectId').equals(id).count());
  if (bases === 0) return 'The model of this project is missing from the store.';
  // What version 1 kept is counted otherwise; opening it looks closer.
  const { firstAct: first, done } = row;
  if (first === undefined || done === undefined) return undefined;
  const { keys, patched } = await actKeys(database, id);
  const whole =
    keys.every(([, number], i) => number === first + i && patched.has(number)) &&
    done >= first &&
    done <= first + keys.length;
  return whole ? undefined : 'Some of what was done is missing from the store.';
}

/** Does something to a project that no other tab has open. */
async function locked(id: string, locks: LockManager, work: () => Promise<void>): Promise<void> {
  const lock: Lock | undefined = await lockProject(id, locks);
  if (!lock)
    throw new HemError(
      'open-elsewhere',
      'This project is open in another tab. Close it there first. Nothing was changed.',
    );
  try {
    await saving(work());
  } finally {
    lock.release();
  }
}

/**
 * Takes a project off the Rack; for thirty days it can be put back.
 *
 * @throws HemError `open-elsewhere`; `store-full` when there is no room even for that
 */
export const takeOff = (database: Database, locks: LockManager, id: string, now: number): Promise<void> =>
  locked(id, locks, () => changeRow(database, id, { deleted: now }));

export const putBack = (database: Database, locks: LockManager, id: string): Promise<void> =>
  locked(id, locks, () => changeRow(database, id, { deleted: undefined }));

/** Removes a project for good: what makes room takes none. */
export const deleteForGood = (database: Database, locks: LockManager, id: string): Promise<void> =>
  locked(id, locks, () => deleteProjects(database, [id]));

/** Removes for good what was taken off the Rack before `before`, one after the other, except what is open somewhere. */
export async function emptyOff(database: Database, locks: LockManager, before = Infinity): Promise<void> {
  const off = (await rackRows(database)).filter(({ deleted }) => deleted !== undefined && deleted < before);
  for (const { id } of off) {
    try {
      await deleteForGood(database, locks, id);
    } catch (error) {
      if (!(error instanceof HemError) || error.code !== 'open-elsewhere') throw error;
    }
  }
}
