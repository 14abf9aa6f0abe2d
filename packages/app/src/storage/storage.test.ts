import 'fake-indexeddb/auto';
import { type HemDocument, openDocument, topologyOf } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { findEdge } from '@blunt-hem/core/mesh/connectivity';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { openSession } from '@blunt-hem/core/session/session';
import { cube } from '@blunt-hem/core/testing/shapes';
import { afterEach, describe, expect, it } from 'vitest';
import { type Database, databaseNamed, openDatabase } from './database.ts';
import { databasePersistence, LONG_TAIL } from './databasePersistence.ts';
import { loadProject, wholeProject } from './loadProject.ts';
import { addProject, deleteProjects, renewBase, type Stored } from './projects.ts';

let counter = 0;
const databases: Database[] = [];

async function project(): Promise<{ database: Database; id: string; stored: Stored }> {
  const database = await openDatabase(databaseNamed(`test-${counter++}`));
  databases.push(database);
  const document = openDocument(modelFromMesh('Cube', cube()));
  const id = await addProject(database, { name: 'Cube', document, history: emptyHistory });
  return { database, id, stored: await loadProject(database, id) };
}

const session = (database: Database, { document, history, row, base }: Stored) =>
  openSession({
    document,
    history,
    persistence: databasePersistence(database, { row, base }),
    jobs: localJobs,
  });

function lid({ document }: { document: HemDocument }): number[] {
  const { connectivity } = topologyOf(document.model);
  const pairs = [
    [4, 5],
    [5, 6],
    [6, 7],
    [7, 4],
  ];
  return pairs.map(([a, b]) => findEdge(connectivity, a, b));
}

afterEach(async () => {
  await Promise.all(databases.splice(0).map((database) => database.delete()));
});

describe('storage', () => {
  it('has every act before it is answered, and opens as it was left', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    await open.perform('cut', { edges: lid(stored) });
    const reopened = await loadProject(database, id);
    expect(reopened.history.acts.map(({ operation }) => operation)).toEqual(['cut', 'unfold']);
    expect(reopened.document).toEqual(open.document);

    await open.undo();
    const again = session(database, await loadProject(database, id));
    expect(again.document).toEqual(stored.document);
    await again.redo();
    expect(again.document).toEqual(reopened.document);
  });

  it('has trials beside the acts: what was taken back too, one by one, gone with the project', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    await open.perform('cut', { edges: lid(stored) });
    await open.perform('relax', {});
    await open.undo();
    await open.close();
    const kept = await loadProject(database, id);
    expect(kept.trials).toEqual(open.trials.list);
    expect(kept.trials.map(({ name }) => name)).toEqual(['Relax all shells']);
    expect((await wholeProject(database, id)).project.trials).toEqual(kept.trials);
    // Of two, a damaged one goes, and nothing else with it.
    const again = openSession({
      ...kept,
      persistence: databasePersistence(database, { row: kept.row, base: kept.base }),
      jobs: localJobs,
    });
    await again.perform('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, 0.5, 0] });
    const mine = await again.trials.keep('Mine');
    await again.trials.name(mine.id, 'Ours');
    expect((await loadProject(database, id)).trials.map(({ name }) => name)).toEqual([
      'Ours',
      'Relax all shells',
    ]);
    await database.pieces
      .toCollection()
      .filter(({ number }) => number === -2)
      .delete();
    expect((await loadProject(database, id)).trials.map(({ name }) => name)).toEqual(['Ours']);
    await again.trials.drop(mine.id);
    expect((await loadProject(database, id)).trials).toEqual([]);
    await deleteProjects(database, [id]);
    expect(await database.records.count()).toBe(0);
    expect(await database.pieces.count()).toBe(0);
  });

  it('forgets what could be redone once something else is done', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    await open.perform('cut', { edges: lid(stored) });
    await open.undo();
    await open.perform('hide', {});
    const { history } = await loadProject(database, id);
    expect(history.acts.map(({ operation }) => operation)).toEqual(['hide']);
    // The act, and the base with its text once more.
    expect(await database.records.count()).toBe(3);
    expect(await open.redo()).toBeUndefined();
  });

  it('does not do what it cannot store, and says so', async () => {
    const { database, stored } = await project();
    const open = session(database, stored);
    database.acts.hook('creating', () => {
      throw new Error('quota');
    });
    await expect(open.perform('cut', { edges: lid(stored) })).rejects.toThrow(
      /could not be saved, so it was not done/,
    );
    expect(open.document).toBe(stored.document);
  });

  it('takes back nothing that it cannot store as taken back', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    await open.perform('cut', { edges: lid(stored) });
    const before = open.document;
    database.projects.hook('updating', () => {
      throw new Error('quota');
    });
    await expect(open.undo()).rejects.toThrow(/could not be saved/);
    expect(open.document).toBe(before);
    expect(open.history.done).toBe(2);
    expect((await loadProject(database, id)).document).toEqual(before);
  });

  it('does not call kept what meets no project', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    await database.projects.delete(id);
    await expect(open.perform('hide', {})).rejects.toThrow(/not on the Rack any more/);
    expect(await database.acts.count()).toBe(0);
  });

  it('brings its base up to date, opens from it, and can still take everything back', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    const many = 2 * LONG_TAIL + 5;
    for (let i = 0; i < many; i++) await open.perform('hide', { how: i % 2 === 0 ? 'hide' : 'show' });
    expect((await loadProject(database, id)).base.at).toBeGreaterThanOrEqual(LONG_TAIL);
    const reopened = session(database, await loadProject(database, id));
    expect(reopened.document).toEqual(open.document);
    expect(reopened.history.done).toBe(many);
    for (let i = 0; i < many; i++) await reopened.undo();
    expect(reopened.document).toEqual(stored.document);
    // The base stands among what can be redone: a new act there brings it along.
    expect((await loadProject(database, id)).document).toEqual(stored.document);
    await reopened.perform('hide', { faces: [0] });
    expect((await loadProject(database, id)).document).toEqual(reopened.document);
  });

  it('lets go of the oldest acts when they take too much, and of no other', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    for (let i = 0; i < 6; i++) await open.perform('hide', { how: i % 2 === 0 ? 'hide' : 'show' });
    const sizes = (await database.acts.toArray()).map(({ bytes }) => bytes);
    const { base } = await loadProject(database, id);
    await renewBase(database, id, open.document, 6, base, sizes[3] + sizes[4] + sizes[5]);
    const left = await loadProject(database, id);
    expect(left.history.acts).toHaveLength(3);
    expect(left.history.done).toBe(3);
    expect(left.document).toEqual(open.document);
    const reopened = session(database, left);
    for (let i = 0; i < 3; i++) await reopened.undo();
    expect(await reopened.undo()).toBeUndefined();
    expect(reopened.document.hidden.every((mark) => mark === 1)).toBe(true);
    await reopened.perform('hide', { how: 'show' });
    expect((await loadProject(database, id)).document).toEqual(reopened.document);
  });

  it('reads deltas back that memory has let go of', async () => {
    const { database, stored } = await project();
    const { document, history, row, base } = stored;
    const persistence = { ...databasePersistence(database, { row, base }), memory: 100 };
    let readBack = 0;
    const open = openSession({
      document,
      history,
      jobs: localJobs,
      persistence: {
        ...persistence,
        delta: (at) => {
          readBack++;
          return persistence.delta(at);
        },
      },
    });
    await open.perform('cut', { edges: lid(stored) });
    await open.perform('relax', {});
    await open.undo();
    await open.undo();
    expect(readBack).toBeGreaterThan(0);
    expect(open.document).toEqual(stored.document);
  });

  it('keeps the history of a project that was handed on', async () => {
    const { database, id, stored } = await project();
    const open = session(database, stored);
    await open.perform('cut', { edges: lid(stored) });
    const { document } = open;
    const { project: handedOn } = await wholeProject(database, id);
    const copy = await addProject(database, { ...handedOn, name: 'Copy' });
    const opened = session(database, await loadProject(database, copy));
    expect(opened.document).toEqual(document);
    await opened.undo();
    expect(opened.document).toEqual(stored.document);
  });

  it('deletes a project with all it has, and no other', async () => {
    const { database, id, stored } = await project();
    const { document } = stored;
    const other = await addProject(database, { name: 'Other', document, history: emptyHistory });
    await session(database, stored).perform('hide', {});
    await deleteProjects(database, [id]);
    await expect(loadProject(database, id)).rejects.toThrow(/not on the Rack/);
    expect((await loadProject(database, other)).document).toEqual(document);
    expect((await database.records.toArray()).every(({ projectId }) => projectId === other)).toBe(true);
    expect(await database.pieces.count()).toBe(1);
    expect(await database.acts.count()).toBe(0);
  });
});
