import 'fake-indexeddb/auto';
import { openDocument, topologyOf } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { StoppedError } from '@blunt-hem/core/errors';
import { findEdge } from '@blunt-hem/core/mesh/connectivity';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { localSolvers } from '@blunt-hem/core/operations/localSolvers';
import type { Solvers } from '@blunt-hem/core/operations/operation';
import { cube } from '@blunt-hem/core/testing/shapes';
import { afterEach, describe, expect, it } from 'vitest';
import { type Database, openDatabase } from '../storage/database.ts';
import { addProject, KEPT_ACTS, loadProject, purgeDeleted, type Stored } from '../storage/projects.ts';
import type { BenchEvent } from './protocol.ts';
import { openSession } from './session.ts';

let counter = 0;
const databases: Database[] = [];

async function project(): Promise<{ database: Database; id: string; stored: Stored }> {
  const database = openDatabase(`test-${counter++}`);
  databases.push(database);
  const document = openDocument(modelFromMesh('Cube', cube()));
  const id = await addProject(database, { name: 'Cube', document, history: emptyHistory });
  return { database, id, stored: (await loadProject(database, id)) as Stored };
}

function session(database: Database, stored: Stored, solvers: Solvers = localSolvers) {
  const events: BenchEvent[] = [];
  const open = openSession(database, stored, solvers, (event) => events.push(event));
  open.start();
  return { open, events };
}

function lid({ document }: Stored): { operation: string; params: { edges: number[] } } {
  const { links } = topologyOf(document.model);
  const pairs = [
    [4, 5],
    [5, 6],
    [6, 7],
    [7, 4],
  ];
  return { operation: 'cut', params: { edges: pairs.map(([a, b]) => findEdge(links, a, b)) } };
}

afterEach(async () => {
  await Promise.all(databases.splice(0).map((database) => database.delete()));
});

describe('session', () => {
  it('unfolds what a cut touches, in the same undo, and writes both before it answers', async () => {
    const { database, id, stored } = await project();
    const { open, events } = session(database, stored);
    await open.perform(lid(stored));
    const reopened = (await loadProject(database, id)) as Stored;
    expect(reopened.history.acts.map(({ operation }) => operation)).toEqual(['cut', 'unfold']);
    expect(reopened.document.uvSets).toEqual(open.document.uvSets);
    const last = events.findLast((event) => event.kind === 'state');
    expect(last?.kind === 'state' && last.state.undoable).toEqual(['Cut 4 edges']);

    await open.undo();
    expect(open.document.seams).toEqual(stored.document.seams);
    const again = session(database, (await loadProject(database, id)) as Stored);
    expect(again.open.document.uvSets).toEqual(stored.document.uvSets);
    await again.open.redo();
    expect(again.open.document.uvSets).toEqual(reopened.document.uvSets);
    await Promise.all([open.close(), again.open.close()]);
  });

  it('relaxes again what had been relaxed, after a cut, all in one undo', async () => {
    const { database, stored } = await project();
    const { open } = session(database, stored);
    await open.perform(lid(stored));
    await open.perform({ operation: 'relax', params: {} });
    const relaxed = open.document;
    expect(relaxed.relaxed.includes(1)).toBe(true);
    const { links } = topologyOf(stored.document.model);
    await open.perform({ operation: 'cut', params: { edges: [findEdge(links, 0, 4)] } });
    expect(open.stored.history.acts.map(({ operation }) => operation)).toEqual([
      'cut',
      'unfold',
      'relax',
      'cut',
      'unfold',
      'relax',
    ]);
    expect(open.document.stale.includes(1)).toBe(false);
    await open.undo();
    expect(open.document).toEqual(relaxed);
    // An unfold that was asked for is a fresh start: it is not relaxed behind the artist's back.
    await open.perform({ operation: 'unfold', params: {} });
    expect(open.document.relaxed.includes(1)).toBe(false);
    expect(open.stored.history.acts.at(-1)?.operation).toBe('unfold');
    await open.close();
  });

  it('forgets what could be redone once something else is done', async () => {
    const { database, id, stored } = await project();
    const { open } = session(database, stored);
    await open.perform(lid(stored));
    await open.undo();
    await open.perform({ operation: 'hide', params: {} });
    const reopened = (await loadProject(database, id)) as Stored;
    expect(reopened.history.acts.map(({ operation }) => operation)).toEqual(['hide']);
    expect(await open.redo()).toBeUndefined();
    await open.close();
  });

  it('lets a newer act stop an unfold, and unfolds later what was left', async () => {
    const { database, stored } = await project();
    let stops = 0;
    const slow: Solvers = {
      ...localSolvers,
      async unfold(jobs, context) {
        for (let i = 0; i < 50; i++) {
          await new Promise((resolve) => setTimeout(resolve, 2));
          if (context.signal.aborted) {
            stops++;
            throw new StoppedError();
          }
        }
        return localSolvers.unfold(jobs, context);
      },
    };
    const { open } = session(database, stored, slow);
    const cut = lid(stored);
    const first = open.perform(cut);
    await new Promise((resolve) => setTimeout(resolve, 20));
    await Promise.all([first, open.perform({ operation: 'sew', params: cut.params }), open.perform(cut)]);
    expect(stops).toBeGreaterThan(0);
    expect(open.document.stale.includes(1)).toBe(false);
    expect(open.document.uvSets[0].uv.some(Number.isNaN)).toBe(false);
    await open.close();
  });

  it('does not do what it cannot store', async () => {
    const { database, stored } = await project();
    const { open } = session(database, stored);
    database.acts.hook('creating', () => {
      throw new Error('quota');
    });
    await expect(open.perform(lid(stored))).rejects.toThrow(/could not be saved, so it was not done/);
    expect(open.document).toBe(stored.document);
    await open.close();
  });

  it('folds a long history and still opens as it was left', async () => {
    const { database, id, stored } = await project();
    const { open } = session(database, stored);
    for (let i = 0; i < KEPT_ACTS + 5; i++) {
      await open.perform({ operation: 'hide', params: { how: i % 2 === 0 ? 'hide' : 'show' } });
    }
    const reopened = (await loadProject(database, id)) as Stored;
    expect(reopened.history.acts.length).toBeLessThanOrEqual(KEPT_ACTS);
    expect(reopened.document.hidden).toEqual(open.document.hidden);
    await open.undo();
    expect(((await loadProject(database, id)) as Stored).document.hidden).toEqual(open.document.hidden);
    await open.close();
  });

  it('keeps the history of a project that was handed on', async () => {
    const { database, stored } = await project();
    const { open } = session(database, stored);
    await open.perform(lid(stored));
    const { document, history } = open.stored;
    const copy = await addProject(database, { name: 'Copy', document, history });
    const opened = session(database, (await loadProject(database, copy)) as Stored);
    expect(opened.open.document.uvSets).toEqual(document.uvSets);
    await opened.open.undo();
    expect(opened.open.document.seams).toEqual(stored.document.seams);
    await Promise.all([open.close(), opened.open.close()]);
  });

  it('purges what was thrown away long ago, and nothing else', async () => {
    const { database, id, stored } = await project();
    const other = await addProject(database, {
      name: 'Other',
      document: stored.document,
      history: emptyHistory,
    });
    await database.projects.update(id, { deleted: 1 });
    await purgeDeleted(database, Date.now());
    expect(await loadProject(database, id)).toBeUndefined();
    expect(await loadProject(database, other)).toBeDefined();
  });
});
