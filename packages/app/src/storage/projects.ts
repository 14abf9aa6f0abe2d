import type { HemDocument } from '@blunt-hem/core/document/document';
import { shellsOf } from '@blunt-hem/core/document/document';
import type { History, KeptAct } from '@blunt-hem/core/document/history';
import { byteSize } from '@blunt-hem/core/document/patch';
import { HemError } from '@blunt-hem/core/errors';
import { checksums } from '@blunt-hem/core/keeping/checksum';
import { pack } from '@blunt-hem/core/keeping/packed';
import type { Project } from '@blunt-hem/core/keeping/projectFile';
import type { Trial } from '@blunt-hem/core/trials/trial';
import { BASE, type Database, type ProjectRow, tablesOf } from './database.ts';
import { deleteRecords, putRecord } from './records.ts';
import { saving } from './saving.ts';
import { putTrial } from './trials.ts';

/** What is written of projects. Each function writes all it says, or nothing. */

export interface Stored {
  readonly row: ProjectRow;
  readonly document: HemDocument;
  readonly history: History;
  readonly trials: readonly Trial[];
  /** The act before which the base stands. */
  readonly baseAt: number;
}

export const gone = () => new HemError('no-such-project', 'This project is not on the Rack any more.');

/** A new project as the database will have it, before anything of it is stored. */
export function newProject(
  { name, document, history, trials = [] }: Project,
  more: Partial<ProjectRow> = {},
): Stored {
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
    ...more,
  };
  return { row, document, history, trials, baseAt: done };
}

/** Stores a new project. */
export async function storeProject(
  database: Database,
  { row, document, trials }: Stored,
  kept: readonly KeptAct[],
): Promise<void> {
  const { id, done } = row;
  const sum = await checksums();
  const base = pack({ document, at: done }, sum);
  await saving(
    database.transaction('rw', tablesOf(database), async () => {
      await database.projects.add(row);
      await putRecord(database, id, BASE, base);
      await database.acts.bulkAdd(kept.map((act, number) => actRow(id, number, act)));
      for (const [number, { patch }] of kept.entries())
        await putRecord(database, id, number, pack(patch, sum));
      for (const trial of trials) await putTrial(database, id, trial, sum);
    }),
    'This project could not be stored',
  );
}

export async function addProject(
  database: Database,
  project: Project,
  more?: Partial<ProjectRow>,
): Promise<string> {
  const stored = newProject(project, more);
  await storeProject(database, stored, project.history.acts);
  return stored.row.id;
}

const actRow = (projectId: string, number: number, { operation, params, label, group, patch }: KeptAct) => ({
  operation,
  params,
  label,
  group,
  projectId,
  number,
  bytes: byteSize(patch.changes),
});

const counts = (document: HemDocument) => ({
  faces: document.model.mesh.faceStart.length - 1,
  shells: shellsOf(document).shellCount,
});

/**
 * Keeps one act: what could be redone goes, the act comes. The act counts as done only once this has resolved.
 *
 * @param row  the project as it was opened
 * @param number  of the act
 * @param rebase  whether the base stands among the acts that go, and the document takes its place
 */
export async function saveAct(
  database: Database,
  { id, firstAct }: ProjectRow,
  number: number,
  act: KeptAct,
  document: HemDocument,
  rebase = false,
): Promise<void> {
  const sum = await checksums();
  const patch = pack(act.patch, sum);
  const base = rebase ? pack({ document, at: number + 1 }, sum) : undefined;
  const changes = { firstAct, done: number + 1, updated: Date.now(), ...counts(document) };
  await saving(
    database.transaction('rw', tablesOf(database), async () => {
      await deleteActs(database, id, number, Infinity);
      await database.acts.add(actRow(id, number, act));
      await putRecord(database, id, number, patch);
      if (base) await putBase(database, id, base);
      await changeRow(database, id, changes);
    }),
  );
}

/** Keeps where undo and redo have got to. */
export async function saveDone(
  database: Database,
  { id, firstAct }: ProjectRow,
  done: number,
  document: HemDocument,
): Promise<void> {
  const changes = { firstAct, done, updated: Date.now(), ...counts(document) };
  await saving(database.transaction('rw', database.projects, () => changeRow(database, id, changes)));
}

/** @throws HemError when there is no such project: a write that meets none has kept nothing */
export async function changeRow(
  { projects }: Database,
  id: string,
  changes: Partial<ProjectRow>,
): Promise<void> {
  if ((await projects.update(id, changes)) > 0) return;
  // A row that already is as it should be counts as not updated.
  if (!(await projects.get(id))) throw gone();
}

async function deleteActs(database: Database, id: string, from: number, to: number): Promise<void> {
  const range = [
    [id, from],
    [id, to],
  ] as const;
  await database.acts
    .where('[projectId+number]')
    .between(...range)
    .delete();
  await database.patches
    .where('[projectId+number]')
    .between(...range)
    .delete();
  await deleteRecords(database, id, from, to);
}

async function putBase(database: Database, id: string, base: ReturnType<typeof pack>): Promise<void> {
  await putRecord(database, id, BASE, base);
  await database.bases.delete(id);
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
  const base = pack({ document, at }, await checksums());
  await saving(
    database.transaction('rw', tablesOf(database), async () => {
      const row = await database.projects.get(id);
      if (!row) throw gone();
      await putBase(database, id, base);
      const rows = await database.acts.where('[projectId+number]').between([id, 0], [id, Infinity]).toArray();
      let total = rows.reduce((sum, { bytes }) => sum + bytes, 0);
      let { firstAct } = row;
      for (const { number, bytes } of rows) {
        if (total <= most || number >= Math.min(at, row.done)) break;
        total -= bytes;
        firstAct = number + 1;
      }
      if (firstAct === row.firstAct) return;
      await deleteActs(database, id, 0, firstAct);
      await database.projects.update(id, { firstAct });
    }),
  );
}

/** Removes projects for good. */
export async function deleteProjects(database: Database, ids: readonly string[]): Promise<void> {
  await saving(
    database.transaction('rw', tablesOf(database), async () => {
      for (const id of ids) {
        await deleteActs(database, id, -Infinity, Infinity);
        await database.projects.delete(id);
        await database.bases.delete(id);
        await database.views.delete(id);
      }
    }),
  );
}
