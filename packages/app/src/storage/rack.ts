import { HemError } from '@blunt-hem/core/errors';
import { attempt } from '@blunt-hem/core/persistence/attempt';
import { BASES, type Database, type ProjectRow, TEXT_AGAIN, tablesOf } from './database.ts';
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

/** Characters of a name that are shown: it may be of any length, and a page of one of millions would stand still. */
const SHOWN = 200;

export const shownName = (name: string): string => (name.length > SHOWN ? `${name.slice(0, SHOWN)}…` : name);

/**
 * Every project, the last changed first. One that is garbled hides no other, and one whose row is lost is found by what else is kept of
 * it.
 */
export const rackRows = (database: Database): Promise<RackRow[]> =>
  database.transaction('r', tablesOf(database), async () => rowsAtOnce(database));

async function rowsAtOnce(database: Database): Promise<RackRow[]> {
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
    const damage = row.damage ?? problem ?? (await damageByKeys(database, row));
    found.push(shown(row, damage));
  }
  const known = new Set(await projects.toCollection().primaryKeys());
  for (const id of await keptIds(database)) if (!known.has(id)) found.push(await orphan(database, id));
  return found.sort((a, b) => b.updated - a.updated);
}

function shown(row: KeptRow, damage: string | undefined): RackRow {
  const { id, name, created, updated, faces, shells, picture, deleted } = row;
  return {
    id,
    name: shownName(name),
    created,
    updated,
    faces,
    shells,
    picture,
    deleted,
    damage,
  };
}

/** Ids of all projects of which a model is kept, whether the Rack knows of them or not. */
export async function keptIds({ records, bases }: Database): Promise<string[]> {
  const ids = new Set<string>(await bases.toCollection().primaryKeys());
  // From one project to the next: what lies between is passed over, not read.
  const first = () => records.orderBy('[projectId+number]').limit(1).primaryKeys();
  const after = (id: string) => records.where('[projectId+number]').above([id, []]).limit(1).primaryKeys();
  for (let [key] = await first(); key; [key] = await after(key[0])) ids.add(key[0]);
  return [...ids];
}

/** A project whose row is lost, under the name of its model. */
async function orphan(database: Database, id: string): Promise<RackRow> {
  let name: unknown;
  for (const slot of BASES.flatMap((slot) => [slot, TEXT_AGAIN[slot]])) {
    const text = (await readable(database.records.get([id, slot])))?.text;
    name ??= attempt(() => JSON.parse(text ?? '').value.document.model.name);
  }
  const { row } = soundRow({ id, name });
  return shown(row as KeptRow, 'What the Rack knew of this project is lost. What it holds is still here.');
}

/** What can be seen from the keys alone: whether everything that should be there is. */
async function damageByKeys(database: Database, row: KeptRow): Promise<string | undefined> {
  const { id } = row;
  const bases =
    (await database.records
      .where('[projectId+number]')
      .anyOf(BASES.map((slot) => [id, slot]))
      .count()) + (await database.bases.where('projectId').equals(id).count());
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
  locked(id, locks, async () => {
    const lost = (await database.projects.get(id)) === undefined;
    // One whose row is lost gets one, as far as it can be told.
    if (lost && (await keptIds(database)).includes(id))
      await database.projects.put({ ...(await orphan(database, id)), deleted: now } as ProjectRow);
    else await changeRow(database, id, { deleted: now });
  });

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
