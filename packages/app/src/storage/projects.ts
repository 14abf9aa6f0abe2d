import type { HemDocument } from '@blunt-hem/core/document/document';
import { shellsOf } from '@blunt-hem/core/document/document';
import type { History } from '@blunt-hem/core/document/history';
import { applyPatch, inverse } from '@blunt-hem/core/document/patch';
import { upgradedActs, upgradedDocument } from '@blunt-hem/core/document/upgrade';
import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/formats/projectFile';
import type { Database, ProjectRow } from './database.ts';

/** Acts beyond this many are folded into the base, oldest first, a half at a time. */
export const KEPT_ACTS = 400;

export interface Stored {
  readonly row: ProjectRow;
  readonly document: HemDocument;
  readonly history: History;
  /** Number of the first kept act. */
  readonly firstAct: number;
}

export async function addProject(
  database: Database,
  { name, document, history }: Project,
  picture?: Blob,
): Promise<string> {
  const id = crypto.randomUUID();
  const now = Date.now();
  // The base is the document before its acts: take them back one by one.
  let base = document;
  for (let i = history.done; i-- > 0; ) base = applyPatch(base, inverse(history.acts[i].patch));
  const row: ProjectRow = {
    id,
    name,
    created: now,
    updated: now,
    done: history.done,
    ...counts(document),
    picture,
  };
  await saving(
    database.transaction('rw', database.projects, database.bases, database.acts, async () => {
      await database.projects.add(row);
      await database.bases.add({ projectId: id, document: base, firstAct: 0 });
      await database.acts.bulkAdd(history.acts.map((act, number) => ({ ...act, projectId: id, number })));
    }),
  );
  return id;
}

const counts = (document: HemDocument) => ({
  faces: document.model.mesh.faceStart.length - 1,
  shells: shellsOf(document).shellCount,
});

/**
 * Reads a project and replays its acts; undefined when there is none of that id.
 *
 * @param known  its document, where the caller has it: then the base is not read
 */
export async function loadProject(
  database: Database,
  id: string,
  known?: HemDocument,
): Promise<Stored | undefined> {
  const [row, base, keptActs] = await database.transaction(
    'r',
    database.projects,
    database.bases,
    database.acts,
    () =>
      Promise.all([
        database.projects.get(id),
        known ? { document: known, firstAct: 0 } : database.bases.get(id),
        database.acts.where('projectId').equals(id).sortBy('number'),
      ]),
  );
  if (!row || !base) return undefined;
  const acts = upgradedActs(keptActs);
  const standing = known ? [] : acts.slice(0, row.done);
  const document = standing.reduce((d, act) => applyPatch(d, act.patch), upgradedDocument(base.document));
  return { row, document, history: { acts, done: row.done }, firstAct: base.firstAct };
}

/**
 * Keeps one act: what could be redone goes, the act comes, in one transaction. The act counts as done only once
 * this has resolved.
 */
export async function saveAct(
  database: Database,
  id: string,
  firstAct: number,
  history: History,
  document: HemDocument,
): Promise<void> {
  const number = firstAct + history.done - 1;
  const act = history.acts[history.done - 1];
  await saving(
    database.transaction('rw', database.projects, database.acts, async () => {
      await database.acts
        .where('[projectId+number]')
        .between([id, number], [id, Infinity], true, true)
        .delete();
      await database.acts.add({ ...act, projectId: id, number });
      await database.projects.update(id, { done: history.done, updated: Date.now(), ...counts(document) });
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
  await saving(database.projects.update(id, { done, updated: Date.now(), ...counts(document) }));
}

/** Folds the older half of a long history into the base; returns what is left of it. */
export async function foldHistory(database: Database, id: string, stored: Stored): Promise<Stored> {
  const { history, firstAct } = stored;
  const folded = Math.min(history.done, Math.floor(KEPT_ACTS / 2));
  if (history.acts.length <= KEPT_ACTS || folded === 0) return stored;
  const next: History = { acts: history.acts.slice(folded), done: history.done - folded };
  await saving(
    database.transaction('rw', database.projects, database.bases, database.acts, async () => {
      const base = await database.bases.get(id);
      if (!base) return;
      const document = history.acts
        .slice(0, folded)
        .reduce((d, act) => applyPatch(d, act.patch), base.document);
      await database.bases.put({ projectId: id, document, firstAct: firstAct + folded });
      await database.acts
        .where('[projectId+number]')
        .between([id, 0], [id, firstAct + folded])
        .delete();
      await database.projects.update(id, { done: next.done });
    }),
  );
  return { ...stored, history: next, firstAct: firstAct + folded };
}

/** Removes for good what was thrown away before `before`. */
export async function purgeDeleted(database: Database, before: number): Promise<void> {
  const gone = await database.projects
    .filter(({ deleted }) => deleted !== undefined && deleted < before)
    .primaryKeys();
  await database.transaction(
    'rw',
    database.projects,
    database.bases,
    database.acts,
    database.views,
    async () => {
      await database.projects.bulkDelete(gone);
      await database.bases.bulkDelete(gone);
      await database.views.bulkDelete(gone);
      await database.acts.where('projectId').anyOf(gone).delete();
    },
  );
}

/** @throws HemError with what an artist can do when the browser will not store any more */
async function saving<T>(work: PromiseLike<T>): Promise<T> {
  try {
    return await work;
  } catch {
    throw new HemError(
      'not-saved',
      'This could not be saved, so it was not done: the browser’s storage is full or closed. Delete projects you no longer need, or export this one.',
    );
  }
}
