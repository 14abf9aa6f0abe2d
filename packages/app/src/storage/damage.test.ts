import { ARRAY_KINDS } from '@blunt-hem/core/persistence/packed';
import 'fake-indexeddb/auto';
import { applyDelta, inverse } from '@blunt-hem/core/document/delta';
import { HemError } from '@blunt-hem/core/errors';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { findFault } from '@blunt-hem/core/persistence/validateDocument';
import { openSession } from '@blunt-hem/core/session/session';
import { keptState, keptStates, keptStore } from '@blunt-hem/core/testing/kept';
import { type Fault, faults, spoilt } from '@blunt-hem/core/testing/spoil';
import Dexie from 'dexie';
import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import {
  BASE,
  BASES,
  type Database,
  databaseNamed,
  OTHER_BASE,
  openDatabase,
  TEXT_AGAIN,
} from './database.ts';
import { databasePersistence } from './databasePersistence.ts';
import { loadProject, loadWhole, wholeAtOnce, wholeProject } from './loadProject.ts';
import { addProject, renewBase } from './projects.ts';
import { rackRows } from './rack.ts';

let names = 0;
const databases: Dexie[] = [];
const opened = (name: string) => openDatabase(databaseNamed(name));
const remember = <T extends Dexie>(database: T): T => {
  databases.push(database);
  return database;
};

afterEach(async () => {
  await Promise.all(databases.splice(0).map((database) => database.delete()));
});

const TABLES = {
  1: {
    projects: 'id, updated',
    bases: 'projectId',
    acts: '[projectId+number], projectId',
    views: 'projectId',
  },
  2: { patches: '[projectId+number], projectId' },
  3: { records: '[projectId+number]', pieces: '[projectId+number+part]' },
};

/** A store as a version left it. */
async function oldStore(kept: string): Promise<{ name: string; id: string }> {
  const name = `old-${names++}`;
  const { version, rows } = keptStore(kept);
  const old = remember(new Dexie(name));
  old.version(1).stores(TABLES[1]);
  if (version >= 2) old.version(2).stores(TABLES[2]);
  if (version >= 3) old.version(3).stores(TABLES[3]);
  for (const [table, list] of Object.entries(rows)) await old.table(table).bulkAdd(list);
  old.close();
  return { name, id: (rows.projects[0] as { id: string }).id };
}

/** A store of today with the kept project in it: five acts that stand and one that can be redone. */
async function store(): Promise<{ database: Database; id: string }> {
  const { name, id } = await oldStore('store-v2.json');
  const old = remember(await opened(name));
  const { project } = await wholeProject(old, id);
  const database = remember(await opened(`new-${names++}`));
  return { database, id: await addProject(database, project) };
}

const session = async (database: Database, id: string) => {
  const { row, document, history, base } = await loadProject(database, id);
  return openSession({
    document,
    history,
    persistence: databasePersistence(database, { row, base }),
    jobs: localJobs,
  });
};

describe.each([
  'store-v1-early.json',
  'store-v1.json',
  'store-v2.json',
  'store-v3.json',
  'store-v4.json',
  'store-v5.json',
  'store-v6.json',
  'store-v7.json',
])('a store as it was kept, %s', (kept) => {
  it('opens with every act to take back and do again, and nothing in it is changed by that', async () => {
    const { name, id } = await oldStore(kept);
    const database = remember(await opened(name));
    const old = async () =>
      JSON.stringify([
        await database.bases.toArray(),
        await database.acts.toArray(),
        await database.projects.toArray(),
      ]);
    const before = await old();
    const { document, history } = await loadProject(database, id);
    expect([history.acts.length, history.done]).toEqual([6, 5]);
    expect(keptState(document)).toEqual(keptStates[5]);
    const { project, damage } = await wholeProject(database, id);
    expect(damage).toBeUndefined();
    project.history.acts.slice(0, 5).reduceRight((d, { delta }, i) => {
      const earlier = applyDelta(d, inverse(delta));
      expect(keptState(earlier)).toEqual(keptStates[i]);
      return earlier;
    }, document);
    expect((await rackRows(database))[0]).toMatchObject({ name: 'Kept cube', damage: undefined });
    expect(await old()).toBe(before);
  });

  it('is worked on, folded and opened again', async () => {
    const { name, id } = await oldStore(kept);
    const database = remember(await opened(name));
    const open = await session(database, id);
    await open.undo();
    await open.perform('hide', { faces: [2] });
    const reopened = await session(database, id);
    expect(reopened.document).toEqual(open.document);
    expect(reopened.history.done).toBe(5);
    // Folded: a base of today takes the place of the old one, below acts of both ages.
    await renewBase(database, id, reopened.document, 5, (await loadProject(database, id)).base, 1000);
    expect(await database.bases.count()).toBe(0);
    const folded = await session(database, id);
    expect(folded.document).toEqual(open.document);
    await folded.undo();
    expect(keptState(folded.document)).toEqual(keptStates[4]);
    await folded.perform('relax', {});
    expect((await loadProject(database, id)).document).toEqual(folded.document);
  });
});

describe('a store of a later version', () => {
  it('is recognised, told and left as it is', async () => {
    const name = `later-${names++}`;
    const later = remember(new Dexie(name));
    later.version(99).stores({ ...TABLES[1], somethingNew: 'id' });
    await later.table('somethingNew').add({ id: 1 });
    later.close();
    await expect(opened(name)).rejects.toThrow(/later Blunt Hem .*99.* knows 15.* Nothing was touched/);
    const again = remember(await new Dexie(name).open());
    expect(again.verno).toBe(99);
    expect(await again.table('somethingNew').count()).toBe(1);
  });

  it('is not taken for one where there is none', async () => {
    remember(await opened('never-there'));
    expect(await Dexie.exists('never-there')).toBe(true);
  });
});

describe('a project in which something is missing', () => {
  it('is refused as it is, and what is whole of it can be had', async () => {
    const cases: [string, (database: Database, id: string) => Promise<unknown>, number, RegExp][] = [
      ['an act in the middle', ({ acts }, id) => acts.delete([id, 2]), 5, /whole\.$/],
      ['what an act changed', ({ records }, id) => records.delete([id, 3]), 5, /whole\.$/],
      ['a piece of what an act changed', ({ pieces }, id) => pieces.delete([id, 4, 0]), 5, /whole\.$/],
      [
        'nothing, but its count is too high',
        ({ projects }, id) => projects.update(id, { done: 9 }),
        6,
        /as it was after/,
      ],
      [
        'nothing, but its count is too low',
        ({ projects }, id) => projects.update(id, { firstAct: 3, done: 1 }),
        1,
        /whole\.$/,
      ],
    ];
    for (const [, spoil, done, sentence] of cases) {
      const { database, id } = await store();
      await spoil(database, id);
      const whole = await wholeProject(database, id);
      expect(whole.damage).toMatch(sentence);
      expect(keptState(whole.project.document)).toEqual(keptStates[done]);
      const copy = await addProject(database, whole.project);
      const open = await session(database, copy);
      while (await open.undo());
      while (await open.redo());
      await open.perform('hide', {});
      expect((await loadProject(database, copy)).document).toEqual(open.document);
      // The damaged one is as it was.
      expect((await wholeProject(database, id)).damage).toMatch(sentence);
    }
  });

  it('is read all of one moment, while another tab works on it', async () => {
    const { database, id } = await store();
    const other = await session(database, id);
    const working = (async () => {
      for (let i = 0; i < 12; i++) await other.perform('hide', { how: i % 2 === 0 ? 'hide' : 'show' });
    })();
    const seen = new Set<number>();
    for (let i = 0; i < 6; i++) {
      const { project, damage } = await wholeAtOnce(database, id);
      expect(damage).toBeUndefined();
      expect(project.history.done).toBe(seen.size === 0 ? 5 : project.history.acts.length);
      seen.add(project.history.acts.length);
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    expect(seen.size).toBeGreaterThan(2);
    await working;
    expect((await wholeAtOnce(database, id)).project.document).toEqual(other.document);
  });

  it('opens strictly only when it is whole', async () => {
    const { database, id } = await store();
    await database.acts.delete([id, 2]);
    await expect(loadProject(database, id)).rejects.toThrow(/damaged in the store/);
  });

  it('says so when its model is missing, and the Rack shows it', async () => {
    const { database, id } = await store();
    await database.records.delete([id, BASE]);
    // Its text is kept twice.
    expect((await loadWhole(database, id)).damage).toBeUndefined();
    await database.records.delete([id, TEXT_AGAIN[BASE]]);
    await expect(loadWhole(database, id)).rejects.toThrow(/model of this project is damaged .* or missing/);
    expect((await rackRows(database))[0].damage).toMatch(/model .* is missing/);
  });

  it('says which step cannot be taken back, and stays as it is', async () => {
    const { database, id } = await store();
    const { row, document, history, base } = await loadProject(database, id);
    const persistence = { ...databasePersistence(database, { row, base }), memory: 0 };
    const open = openSession({ document, history, persistence, jobs: localJobs });
    const piece = await database.pieces.get([id, 4, 0]);
    piece?.bytes.fill(7);
    await database.pieces.put(piece as never);
    await expect(open.undo()).rejects.toThrow(/changed is damaged/);
    expect(open.document).toBe(document);
    const { history: kept, loss } = await open.whole();
    expect(kept).toMatchObject({ done: 0, acts: [{ label: history.acts[5].label }] });
    expect(loss).toMatch(/cannot be taken back/);
  });
});

describe('a base that takes the place of another', () => {
  const flip = async (database: Database, id: string, slot: number) => {
    const piece = await database.pieces.get([id, slot, 0]);
    piece?.bytes.fill(9, 0, 40);
    await database.pieces.put(piece as never);
  };

  it('does so only when it has been read back: until then the last one opens the project', async () => {
    const { database, id } = await store();
    const before = await loadProject(database, id);
    const both = vi.spyOn(database.records, 'get').mockRejectedValue(new Error('not now'));
    await renewBase(database, id, before.document, 5, before.base);
    both.mockRestore();
    const slots = async () =>
      (
        await database.records
          .where('[projectId+number]')
          .anyOf(BASES.map((slot) => [id, slot]))
          .toArray()
      ).map(({ number }) => number);
    expect((await slots()).sort((a, b) => a - b)).toEqual([OTHER_BASE, BASE]);
    // Whichever is damaged, the other has everything.
    for (const slot of BASES) {
      const kept = await database.pieces.get([id, slot, 0]);
      const whole = structuredClone(kept);
      await flip(database, id, slot);
      const after = await loadProject(database, id);
      expect(after.document).toEqual(before.document);
      expect(after.history).toEqual(before.history);
      await database.pieces.put(whole as never);
    }
    // The next renewal leaves one.
    const { base, document } = await loadProject(database, id);
    await renewBase(database, id, document, 5, base);
    expect(await slots()).toHaveLength(1);
  });

  it('is never one from which other acts were done', async () => {
    const { database, id } = await store();
    const open = await session(database, id);
    await open.undo();
    await open.undo();
    const failing = vi.spyOn(database.pieces, 'get').mockRejectedValue(new Error('not now'));
    expect((await open.perform('stand-up', { up: 'z' })).changed).toBe(true);
    failing.mockRestore();
    expect((await loadProject(database, id)).document).toEqual(open.document);
    // The old base is there, and leads nowhere: only its model is had from it.
    const standing = (await loadProject(database, id)).base.slot as number;
    await database.pieces.delete([id, standing, 0]);
    const { damage, project } = await wholeProject(database, id);
    expect(damage).toMatch(/what was done before cannot be taken back/);
    expect(project.history.acts).toEqual([]);
  });
});

describe('a patch whose checksum alone differs', () => {
  it('is told, and everything is had', async () => {
    const { database, id } = await store();
    const before = await loadProject(database, id);
    await renewBase(database, id, before.document, 5, before.base);
    await database.records.update([id, 3], { checksum: '0123456789abcdef' });
    const { project, damage } = await wholeProject(database, id);
    expect(damage).toMatch(/a checksum differs. All of it can be read/);
    expect(project.history.acts).toHaveLength(6);
  });
});

describe('garbled rows', () => {
  it('hide no other project, and show what can be told', async () => {
    const { database, id } = await store();
    const { project } = await wholeProject(database, id);
    const other = await addProject(database, { ...project, name: 'Sound' });
    for (const wrong of [
      { name: 7 },
      { picture: 'x' },
      { updated: 'yesterday' },
      { faces: Number.NaN },
      { deleted: {} },
    ]) {
      const row = await database.projects.get(id);
      await database.projects.put({ ...row, ...wrong } as never);
      const rows = await rackRows(database);
      expect(rows.find((each) => each.id === other)).toMatchObject({ name: 'Sound', damage: undefined });
      expect(rows.find((each) => each.id === id)?.damage).toMatch(/What the Rack knows of this project/);
      await database.projects.put(row as never);
    }
  });

  it('leave all acts standing where only the count of them is lost', async () => {
    for (const wrong of [{ done: 'five' }, { firstAct: -1 }]) {
      const { database, id } = await store();
      await database.acts.delete([id, 5]);
      await database.records.delete([id, 5]);
      await database.projects.update(id, wrong as never);
      const { project, damage } = await wholeProject(database, id);
      expect(damage).toMatch(/What the Rack knows/);
      expect(keptState(project.document)).toEqual(keptStates[5]);
      expect(project.history.acts).toHaveLength(5);
    }
  });

  it('leave the model with what is whole of it, where the base is damaged', async () => {
    const { database, id } = await store();
    const record = await database.records.get([id, BASE]);
    const { arrays, value } = JSON.parse(record?.text ?? '');
    const uv = value.document.uvSets[0].uv.array;
    let at = 0;
    for (const { kind, length } of arrays.slice(0, uv))
      at += length * ARRAY_KINDS[kind as keyof typeof ARRAY_KINDS].BYTES_PER_ELEMENT;
    const piece = await database.pieces.get([id, BASE, 0]);
    piece?.bytes.fill(9, at, at + 8);
    await database.pieces.put(piece as never);
    const { project, damage } = await wholeProject(database, id);
    expect(damage).toMatch(/Its model is whole, with some of its seams and UVs/);
    expect(keptState(project.document)).toMatchObject({ faces: 5, seams: keptStates[5].seams });
    expect(project.history.acts).toEqual([]);
  });
});

describe('whatever is in the rows', () => {
  const RUNS = 1000;

  /** A sound project, or one sentence; and the Rack is always there. */
  async function survives(database: Database, id: string): Promise<string> {
    const rows = await rackRows(database);
    expect(rows.length).toBeGreaterThan(0);
    let whole: Awaited<ReturnType<typeof wholeProject>>;
    try {
      whole = await wholeProject(database, id);
    } catch (error) {
      if (!(error instanceof HemError)) throw error;
      return 'refused';
    }
    const { document, history } = whole.project;
    expect(findFault(document)).toBeUndefined();
    const { acts, done } = history;
    const first = acts.slice(0, done).reduceRight((d, { delta }) => applyDelta(d, inverse(delta)), document);
    const last = acts.slice(done).reduce((d, { delta }) => applyDelta(d, delta), document);
    expect([findFault(first), findFault(last)]).toEqual([undefined, undefined]);
    return whole.damage ? 'partly' : 'whole';
  }

  const cases: [string, string | undefined, readonly string[]][] = [
    ['of today', undefined, ['projects', 'acts', 'records', 'pieces']],
    ['of version 2', 'store-v2.json', ['projects', 'acts', 'bases', 'patches']],
    ['of version 1', 'store-v1.json', ['projects', 'acts', 'bases']],
  ];
  it.each(cases)('a project %s is opened, or told in a sentence', async (_, kept, tables) => {
    let database: Database;
    let id: string;
    if (kept) {
      const old = await oldStore(kept);
      database = remember(await opened(old.name));
      id = old.id;
    } else ({ database, id } = await store());
    const sound = new Map<string, readonly object[]>();
    for (const name of tables) sound.set(name, await database.table(name).toArray());
    const seen = new Set<string>();
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...tables), fc.nat(20), faults, async (name, which, list: Fault[]) => {
        const rows = sound.get(name) as object[];
        const row = rows[which % rows.length];
        const table = database.table(name);
        // Keys stay: a row under another key is another row.
        const keys = Object.fromEntries(
          (table.schema.primKey.keyPath as string | string[] as string[]).length
            ? [table.schema.primKey.keyPath]
                .flat()
                .map((key) => [key, (row as Record<string, unknown>)[key as string]])
            : [],
        );
        await table.put({ ...spoilt(row, list), ...keys });
        seen.add(await survives(database, id));
        await table.put(row);
      }),
      { numRuns: RUNS },
    );
    expect(await survives(database, id)).toBe('whole');
    expect(seen).toContain('partly');
    expect(seen).toContain('refused');
  });
});
