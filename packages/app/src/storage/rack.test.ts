import 'fake-indexeddb/auto';
import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { writeProject } from '@blunt-hem/core/keeping/projectFile';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { openSession } from '@blunt-hem/core/session/session';
import { cube } from '@blunt-hem/core/testing/shapes';
import Dexie from 'dexie';
import { afterEach, describe, expect, it } from 'vitest';
import { daysUnsafe } from '../rack/preferences.ts';
import { type BackedUp, readBackup, writeBackup } from './backup.ts';
import { type Database, databaseNamed, openDatabase } from './database.ts';
import { databaseKeeper } from './databaseKeeper.ts';
import { loadProject } from './loadProject.ts';
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
    const { row, baseAt, document, history } = stored;
    const keeper = { ...databaseKeeper(database, { row, baseAt, fresh: { saved, acts: [] } }), memory: 0 };
    const open = openSession({ document, history, keeper, jobs: localJobs });
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
      keeper: databaseKeeper(database, { ...stored, lock }),
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

describe('a backup', () => {
  async function* some(list: readonly BackedUp<Uint8Array>[]) {
    yield* list;
  }
  const facts = (name: string) => ({ id: `id-${name.length}`, name, created: 1, updated: 2 });
  const read = async (file: Blob) => {
    const got: string[] = [];
    const losses = await readBackup(file, 'x.hemrack', async ({ facts, content }) => {
      expect(content.document).toEqual(START);
      got.push(facts.name);
    });
    return { got, losses };
  };
  const backup = async () => {
    const list = ['one', 'a/b: “two”'.repeat(300)];
    return writeBackup(
      some(
        await Promise.all(
          list.map(async (name) => ({ facts: facts(name), content: await writeProject(project(name)) })),
        ),
      ),
    );
  };

  it('gives every project back, whatever its name', async () => {
    expect(await read(await backup())).toEqual({ got: ['one', 'a/b: “two”'.repeat(300)], losses: [] });
  });

  it('gives back what is whole of it', async () => {
    const bytes = new Uint8Array(await (await backup()).arrayBuffer());
    // Somewhere in the first project.
    bytes.fill(0, 300, 900);
    const { got, losses } = await read(new Blob([bytes]));
    expect(got).toHaveLength(1);
    expect(losses).toEqual(['“one” is damaged in the backup and was left out.']);
  });

  it('is refused in a sentence when it is none, cut short, or of a later version', async () => {
    const whole = await backup();
    const later = await writeBackup(some([]));
    const text = (await later.text()).replace('"version":1', '"version":9');
    for (const [file, sentence] of [
      [new Blob(['nothing']), /not a backup/],
      [whole.slice(0, 2000), /not a backup/],
      [new Blob([text]), /not a backup|later Blunt Hem/],
    ] as const)
      await expect(read(file)).rejects.toThrow(sentence);
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
