import 'fake-indexeddb/auto';
import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { openSession } from '@blunt-hem/core/session/session';
import { cube } from '@blunt-hem/core/testing/shapes';
import Dexie from 'dexie';
import { afterEach, describe, expect, it } from 'vitest';
import { daysUnsafe } from '../rack/preferences.ts';
import { type Database, databaseNamed, openDatabase } from './database.ts';
import { databasePersistence } from './databasePersistence.ts';
import { loadProject, wholeAtOnce } from './loadProject.ts';
import { lockProject } from './locks.ts';
import { addProject, newProject, storeProject } from './projects.ts';
import { deleteForGood, emptyOff, putBack, rackRows, takeOff } from './rack.ts';
import { checkRoom, roomFor } from './room.ts';
import { saving } from './saving.ts';

let names = 0;
const databases: Database[] = [];
const START = openDocument(modelFromMesh('Cube', cube()));
const project = (name: string) => ({ name, document: START, history: emptyHistory });

async function store(): Promise<Database> {
  const database = await openDatabase(databaseNamed(`rack-${names++}`));
  databases.push(database);
  return database;
}

afterEach(async () => {
  await Promise.all(databases.splice(0).map((database) => database.delete()));
});

/** Locks as browsers have them, for the tabs of one test. */
function someLocks() {
  const held = new Map<string, (reason: Error) => void>();
  const locks = {
    request: (
      name: string,
      { steal }: LockOptions,
      work: (lock: object | null) => unknown,
    ): Promise<unknown> => {
      if (held.has(name) && !steal) return Promise.resolve(work(null));
      held.get(name)?.(new DOMException('stolen', 'AbortError'));
      return new Promise((resolve, reject) => {
        held.set(name, reject);
        void Promise.resolve(work({})).then((value) => {
          held.delete(name);
          resolve(value);
        });
      });
    },
  };
  return locks as unknown as LockManager;
}

describe('taking off the Rack', () => {
  it('asks for the lock of the project: what is open in a tab stays', async () => {
    const database = await store();
    const id = await addProject(database, project('Open'));
    const locks = someLocks();
    const tab = await lockProject(id, locks);
    for (const act of [takeOff(database, locks, id, 1), deleteForGood(database, locks, id)])
      await expect(act).rejects.toThrow(/open in another tab. Close it there first/);
    await emptyOff(database, locks);
    expect(await rackRows(database)).toMatchObject([{ name: 'Open', deleted: undefined }]);
    tab?.release();
    await new Promise((resolve) => setTimeout(resolve));
    await takeOff(database, locks, id, 1);
    expect((await rackRows(database))[0].deleted).toBe(1);
  });

  it('can be undone until it has been off too long, and then only it is gone', async () => {
    const database = await store();
    const locks = someLocks();
    const ids = await Promise.all(['a', 'b', 'c'].map((name) => addProject(database, project(name))));
    await takeOff(database, locks, ids[0], 1000);
    await takeOff(database, locks, ids[1], 2000);
    await emptyOff(database, locks, 1500);
    await putBack(database, locks, ids[1]);
    expect((await rackRows(database)).map(({ name, deleted }) => [name, deleted]).sort()).toEqual([
      ['b', undefined],
      ['c', undefined],
    ]);
    await expect(putBack(database, locks, ids[0])).rejects.toThrow(/not on the Rack any more/);
  });

  it('makes room in a store that takes nothing more', async () => {
    const database = await store();
    const locks = someLocks();
    const id = await addProject(database, project('Large'));
    const full = () => {
      throw new DOMException('', 'QuotaExceededError');
    };
    for (const table of database.tables) {
      table.hook('creating', full);
      table.hook('updating', full);
    }
    await expect(takeOff(database, locks, id, 1)).rejects.toMatchObject({ code: 'store-full' });
    await deleteForGood(database, locks, id);
    expect(await rackRows(database)).toEqual([]);
    expect(await database.records.count()).toBe(0);
  });
});

describe('a project that could not be stored', () => {
  it('is worked on in memory, undo and all, and kept when there is room', async () => {
    const database = await store();
    const stored = newProject(project('Adrift'));
    const saved = Promise.reject(new HemError('store-full', 'Full.'));
    saved.catch(() => undefined);
    const { row, base, document, history } = stored;
    const persistence = {
      ...databasePersistence(database, { row, base, fresh: { saved, acts: [] } }),
      memory: 0,
    };
    const open = openSession({ document, history, persistence, jobs: localJobs });
    await open.perform('hide', { faces: [0] });
    await open.perform('hide', { faces: [1] });
    await open.undo();
    await open.perform('cut', { edges: [3] });
    const { document: now } = open;
    await open.undo();
    await open.redo();
    expect(open.document).toEqual(now);
    expect(await database.acts.count()).toBe(0);
    const whole = await open.whole();
    const id = await addProject(database, { name: 'Kept', ...whole });
    expect((await loadProject(database, id)).document).toEqual(now);
    expect(whole.history.acts.map(({ operation }) => operation)).toEqual(['hide', 'cut']);
  });

  it('keeps nothing once another tab has taken it over', async () => {
    const database = await store();
    const locks = someLocks();
    const id = await addProject(database, project('Mine'));
    const lock = await lockProject(id, locks);
    const stored = await loadProject(database, id);
    const open = openSession({
      ...stored,
      persistence: databasePersistence(database, { ...stored, lock }),
      jobs: localJobs,
    });
    await open.perform('hide', { faces: [0] });
    void locks.request(`blunt-hem-${id}`, { steal: true }, () => new Promise(() => undefined));
    await expect(open.perform('hide', { faces: [1] })).rejects.toMatchObject({ code: 'lock-lost' });
    expect((await loadProject(database, id)).history.acts).toHaveLength(1);
  });
});

describe('why something could not be written', () => {
  const cases: [unknown, string][] = [
    [new DOMException('', 'QuotaExceededError'), 'store-full'],
    [new Dexie.AbortError('Aborted', new DOMException('', 'QuotaExceededError') as never), 'store-full'],
    [new Dexie.DatabaseClosedError(), 'store-closed'],
    [new DOMException('', 'InvalidStateError'), 'store-closed'],
    [new DOMException('', 'DataCloneError'), 'store-too-large'],
    [new RangeError('Invalid array length'), 'store-too-large'],
    [new DOMException('', 'UnknownError'), 'not-saved'],
    [undefined, 'not-saved'],
  ];
  it.each(cases)('%s is told apart', async (error, code) => {
    const failed = saving(Promise.reject(error));
    await expect(failed).rejects.toMatchObject({ code });
    await expect(failed).rejects.toThrow(/^This could not be saved, so it was not done: .+\.$/);
  });

  it('is told so by a database that was closed', async () => {
    const database = await store();
    const stored = newProject(project('Late'));
    database.close();
    await expect(storeProject(database, stored, [])).rejects.toMatchObject({ code: 'store-closed' });
  });
});

describe('a project whose row is lost', () => {
  it('is found under the name of its model, opened with what it holds, and can be taken off', async () => {
    const database = await store();
    const locks = someLocks();
    const stored = newProject(project('A name of its own'));
    await storeProject(database, stored, []);
    const { id } = stored.row;
    await addProject(database, project('Another'));
    await database.projects.delete(id);
    const found = (await rackRows(database)).find((row) => row.id === id);
    expect(found).toMatchObject({ name: 'Cube', damage: expect.stringMatching(/is still here/) });
    await expect(loadProject(database, id)).rejects.toMatchObject({ code: 'damaged' });
    const { project: whole } = await wholeAtOnce(database, id);
    expect([whole.name, whole.document]).toEqual(['Cube', START]);
    await takeOff(database, locks, id, 5);
    expect((await rackRows(database)).find((row) => row.id === id)?.deleted).toBe(5);
    await deleteForGood(database, locks, id);
    expect(await rackRows(database)).toMatchObject([{ name: 'Another', damage: undefined }]);
    await expect(wholeAtOnce(database, id)).rejects.toMatchObject({ code: 'no-such-project' });
  });
});

describe('a name of ten million characters', () => {
  it('is shown in part, and kept whole', async () => {
    const database = await store();
    const name = 'long '.repeat(2e6);
    const id = await addProject(database, project(name));
    expect((await rackRows(database))[0].name.length).toBeLessThan(250);
    expect((await loadProject(database, id)).row.name).toBe(name);
  });
});

describe('room', () => {
  it('is compared with what a project takes', async () => {
    const large = project('Large');
    const need = roomFor(large);
    expect(need).toBeGreaterThan(START.uvSets[0].uv.byteLength);
    checkRoom(large, undefined);
    checkRoom(large, { used: 5, most: need + 5, safe: false });
    expect(() => checkRoom(large, { used: 5, most: need + 4, safe: false })).toThrow(
      /takes about .* MB to keep, and the browser has .* MB left/,
    );
  });
});

describe('the reminder', () => {
  const DAY = 24 * 3600 * 1000;
  it('comes when work is old that no backup has', () => {
    const works = [
      { created: 0, updated: 10 * DAY },
      { created: 5 * DAY, updated: 20 * DAY },
    ];
    expect(daysUnsafe(works, 0, 13 * DAY)).toBeUndefined();
    expect(daysUnsafe(works, 0, 14 * DAY)).toBe(14);
    expect(daysUnsafe(works, 15 * DAY, 28 * DAY)).toBeUndefined();
    expect(daysUnsafe(works, 15 * DAY, 30 * DAY)).toBe(15);
    expect(daysUnsafe(works, 21 * DAY, 300 * DAY)).toBeUndefined();
    expect(daysUnsafe([], 0, 300 * DAY)).toBeUndefined();
  });
});
