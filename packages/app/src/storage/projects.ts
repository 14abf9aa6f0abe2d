import { byteSize } from '@blunt-hem/core/document/delta';
import type { HemDocument } from '@blunt-hem/core/document/document';
import { shellsOf } from '@blunt-hem/core/document/document';
import type { History, KeptAct } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { checksums } from '@blunt-hem/core/persistence/checksum';
import { pack } from '@blunt-hem/core/persistence/packed';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import type { Trial } from '@blunt-hem/core/trials/trial';
import { type BasePlace, confirmBase, markPassed, otherSlot, putBase } from './bases.ts';
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
  readonly base: BasePlace;
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
  return { row, document, history, trials, base: { at: done, slot: BASE } };
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
      await putBase(database, id, BASE, base);
      await database.acts.bulkAdd(kept.map((act, number) => actRow(id, number, act)));
      for (const [number, { delta }] of kept.entries())
        await putRecord(database, id, number, pack(delta, sum));
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

const actRow = (projectId: string, number: number, { operation, params, label, group, delta }: KeptAct) => ({
  operation,
  params,
  label,
  group,
  projectId,
  number,
  bytes: byteSize(delta.changes),
});

const counts = (document: HemDocument) => ({
  faces: document.model.mesh.faceStart.length - 1,
  shells: shellsOf(document).shellCount,
});

/**
 * Keeps acts: what could be redone goes, the acts come. They count as done only once this has resolved.
 *
 * @param row  the project as it was opened
 * @param number  of the first of them
 * @param passed  the base, where it stands among the acts that go: the document takes its place
 * @returns where the base is after that
 */
export async function saveActs(
  database: Database,
  { id, firstAct }: ProjectRow,
  number: number,
  acts: readonly KeptAct[],
  document: HemDocument,
  passed?: BasePlace,
): Promise<BasePlace | undefined> {
  const sum = await checksums();
  const deltas = acts.map(({ delta }) => pack(delta, sum));
  const done = number + acts.length;
  const next = passed && { at: done, slot: otherSlot(passed) };
  const base = next && pack({ document, at: next.at }, sum);
  const changes = { firstAct, done, updated: Date.now(), ...counts(document) };
  await saving(
    database.transaction('rw', tablesOf(database), async () => {
      await deleteActs(database, id, number, Infinity);
      for (const [i, act] of acts.entries()) {
        await database.acts.add(actRow(id, number + i, act));
        await putRecord(database, id, number + i, deltas[i]);
      }
      if (passed && base) {
        await markPassed(database, id, passed);
        await putBase(database, id, next.slot, base);
      }
      await changeRow(database, id, changes);
    }),
  );
  return passed && next && confirmBase(database, id, next, passed);
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

/** Most bytes of patches that a project keeps; beyond it the oldest acts can no longer be taken back. */
export const MOST_KEPT = 2 ** 30;

/**
 * Brings the base up to date, so that opening need not go through a long history, and lets go of the oldest acts where they take more
 * than `most`.
 *
 * @param document  as it is before act number `at`
 * @param last  the base so far
 * @returns the one that stands now
 */
export async function renewBase(
  database: Database,
  id: string,
  document: HemDocument,
  at: number,
  last: BasePlace,
  most = MOST_KEPT,
): Promise<BasePlace> {
  const base = pack({ document, at }, await checksums());
  const fresh = { at, slot: otherSlot(last) };
  await saving(
    database.transaction('rw', tablesOf(database), async () => {
      const row = await database.projects.get(id);
      if (!row) throw gone();
      await putBase(database, id, fresh.slot, base);
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
      if (last.at < firstAct) await markPassed(database, id, last);
    }),
  );
  return confirmBase(database, id, fresh, last);
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
