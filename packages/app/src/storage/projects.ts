import type { HemDocument } from '@blunt-hem/core/document/document';
import { shellsOf } from '@blunt-hem/core/document/document';
import type { History, KeptAct } from '@blunt-hem/core/document/history';
import { applyPatch, byteSize, inverse, type Patch } from '@blunt-hem/core/document/patch';
import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/formats/projectFile';
import type { Database, ProjectRow } from './database.ts';
import { saving } from './saving.ts';

export interface Stored {
  readonly row: ProjectRow;
  readonly document: HemDocument;
  readonly history: History;
  /** The act before which the base stands. */
  readonly baseAt: number;
}

const gone = () => new HemError('no-such-project', 'This project is not on the Rack any more.');

/** A new project as the database will have it, before anything of it is stored. */
export function newProject({ name, document, history }: Project, picture?: Blob): Stored {
  const now = Date.now();
  const { done } = history;
  const row: ProjectRow = {
    id: crypto.randomUUID(),
    name,
    created: now,
    updated: now,
    firstAct: 0,
    done,
    ...counts(document),
    picture,
  };
  return { row, document, history, baseAt: done };
}

/** Stores a new project: all of it, or nothing. */
export async function storeProject(
  database: Database,
  { row, document }: Stored,
  kept: readonly KeptAct[],
): Promise<void> {
  const { projects, bases, acts, patches } = database;
  const { id: projectId, done } = row;
  await saving(
    database.transaction('rw', projects, bases, acts, patches, async () => {
      await projects.add(row);
      await bases.add({ projectId, document, at: done });
      await acts.bulkAdd(kept.map((act, number) => actRow(projectId, number, act)));
      await patches.bulkAdd(kept.map(({ patch }, number) => ({ projectId, number, patch })));
    }),
  );
}

export async function addProject(database: Database, project: Project, picture?: Blob): Promise<string> {
  const stored = newProject(project, picture);
  await storeProject(database, stored, project.history.acts);
  return stored.row.id;
}

const actRow = (projectId: string, number: number, { patch, ...act }: KeptAct) => ({
  operation: act.operation,
  params: act.params,
  label: act.label,
  group: act.group,
  projectId,
  number,
  bytes: byteSize(patch.changes),
});

const counts = (document: HemDocument) => ({
  faces: document.model.mesh.faceStart.length - 1,
  shells: shellsOf(document).shellCount,
});

/**
 * Reads a project: its base, and from there on or back what was done.
 *
 * @throws HemError when there is none of that id
 */
export async function loadProject(database: Database, id: string): Promise<Stored> {
  const { projects, bases, acts, patches } = database;
  return database.transaction('r', projects, bases, acts, patches, async () => {
    const [row, base, kept] = await Promise.all([
      projects.get(id),
      bases.get(id),
      acts.where('[projectId+number]').between([id, 0], [id, Infinity]).toArray(),
    ]);
    if (!row || !base) throw gone();
    const history: History = {
      acts: kept.map(({ operation, params, label, group }) => ({ operation, params, label, group })),
      done: row.done - row.firstAct,
    };
    const patchOf = async (number: number): Promise<Patch> => {
      const found = await patches.get([id, number]);
      if (!found) throw new HemError('damaged', 'A part of this project is missing.');
      return found.patch;
    };
    let { document } = base;
    for (let i = base.at; i < row.done; i++) document = applyPatch(document, await patchOf(i));
    for (let i = base.at; i-- > row.done; ) document = applyPatch(document, inverse(await patchOf(i)));
    return { row, document, history, baseAt: base.at };
  });
}

/** Every act of a project with what it changed, for handing it on. */
export async function keptActs(database: Database, id: string): Promise<KeptAct[]> {
  const { acts, patches } = database;
  const all = [
    [id, 0],
    [id, Infinity],
  ] as const;
  const rows = await acts
    .where('[projectId+number]')
    .between(...all)
    .toArray();
  const found = await patches
    .where('[projectId+number]')
    .between(...all)
    .toArray();
  return rows.map(({ operation, params, label, group }, i) => ({
    operation,
    params,
    label,
    group,
    patch: found[i].patch,
  }));
}

/**
 * Keeps one act: what could be redone goes, the act comes, in one transaction. The act counts as done only once
 * this has resolved.
 *
 * @param number  of the act
 * @param rebase  whether the base stands among the acts that go, and the document takes its place
 */
export async function saveAct(
  database: Database,
  id: string,
  number: number,
  act: KeptAct,
  document: HemDocument,
  rebase = false,
): Promise<void> {
  const { projects, bases, acts, patches } = database;
  const row = actRow(id, number, act);
  const changes = { done: number + 1, updated: Date.now(), ...counts(document) };
  await saving(
    database.transaction('rw', projects, bases, acts, patches, async () => {
      const rest = [[id, number], [id, Infinity], true, true] as const;
      await acts
        .where('[projectId+number]')
        .between(...rest)
        .delete();
      await patches
        .where('[projectId+number]')
        .between(...rest)
        .delete();
      await acts.add(row);
      await patches.add({ projectId: id, number, patch: act.patch });
      if (rebase) await bases.put({ projectId: id, document, at: number + 1 });
      // A write that meets no project has kept nothing.
      if ((await projects.update(id, changes)) === 0) throw gone();
    }),
  );
}

/** Keeps where undo and redo have got to. */
export async function saveDone(
  database: Database,
  id: string,
  done: number,
  document: HemDocument,
): Promise<void> {
  const changes = { done, updated: Date.now(), ...counts(document) };
  await saving(
    database.transaction('rw', database.projects, async () => {
      if ((await database.projects.update(id, changes)) === 0) throw gone();
    }),
  );
}

/** Most bytes of patches that a project keeps; beyond it the oldest acts can no longer be taken back. */
export const MOST_KEPT = 2 ** 30;

/**
 * Brings the base up to date, so that opening need not go through a long history, and lets go of the oldest acts where they take more
 * than `most`.
 *
 * @param document  as it is before act number `at`
 */
export async function renewBase(
  database: Database,
  id: string,
  document: HemDocument,
  at: number,
  most = MOST_KEPT,
): Promise<void> {
  const { projects, bases, acts, patches } = database;
  await saving(
    database.transaction('rw', projects, bases, acts, patches, async () => {
      const row = await projects.get(id);
      if (!row) throw gone();
      await bases.put({ projectId: id, document, at });
      const rows = await acts.where('[projectId+number]').between([id, 0], [id, Infinity]).toArray();
      let total = rows.reduce((sum, { bytes }) => sum + bytes, 0);
      let firstAct = row.firstAct;
      for (const { number, bytes } of rows) {
        if (total <= most || number >= Math.min(at, row.done)) break;
        total -= bytes;
        firstAct = number + 1;
      }
      if (firstAct === row.firstAct) return;
      const old = [
        [id, 0],
        [id, firstAct],
      ] as const;
      await acts
        .where('[projectId+number]')
        .between(...old)
        .delete();
      await patches
        .where('[projectId+number]')
        .between(...old)
        .delete();
      await projects.update(id, { firstAct });
    }),
  );
}

/** Removes for good what was thrown away before `before`. */
export async function purgeDeleted(database: Database, before: number): Promise<void> {
  const { projects, bases, acts, patches, views } = database;
  const ids = await projects.filter(({ deleted }) => deleted !== undefined && deleted < before).primaryKeys();
  if (ids.length === 0) return;
  await database.transaction('rw', projects, bases, acts, patches, views, async () => {
    await projects.bulkDelete(ids);
    await bases.bulkDelete(ids);
    await views.bulkDelete(ids);
    await acts.where('projectId').anyOf(ids).delete();
    await patches.where('projectId').anyOf(ids).delete();
  });
}
