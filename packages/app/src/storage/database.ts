import type { HemDocument } from '@blunt-hem/core/document/document';
import type { Act } from '@blunt-hem/core/document/history';
import { byteSize, type Patch } from '@blunt-hem/core/document/patch';
import { upgradedAct, upgradedDocument } from '@blunt-hem/core/document/upgrade';
import Dexie, { type EntityTable, type Table } from 'dexie';

export interface ProjectRow {
  readonly id: string;
  readonly name: string;
  readonly created: number;
  readonly updated: number;
  /** Number of the first act that is kept; acts are numbered from 0 on as they are done. */
  readonly firstAct: number;
  /** Number of the first act that does not stand: those from there on can be redone. */
  readonly done: number;
  readonly faces: number;
  readonly shells: number;
  readonly picture?: Blob;
  /** When it was thrown away; it can be taken back until the Rack is next opened. */
  readonly deleted?: number;
}

/** The document as it was before act number `at`: opening begins here. */
export interface BaseRow {
  readonly projectId: string;
  readonly document: HemDocument;
  readonly at: number;
}

export interface ActRow extends Act {
  readonly projectId: string;
  readonly number: number;
  /** What its patch takes, bytes. */
  readonly bytes: number;
}

/** What an act changed, apart from the act: most are never wanted again. */
export interface PatchRow {
  readonly projectId: string;
  readonly number: number;
  readonly patch: Patch;
}

/** How the Bench was left: cameras, stage, what is shown. */
export interface ViewRow {
  readonly projectId: string;
  readonly view: unknown;
}

export type Database = Dexie & {
  projects: EntityTable<ProjectRow, 'id'>;
  bases: EntityTable<BaseRow, 'projectId'>;
  acts: Table<ActRow, [string, number]>;
  patches: Table<PatchRow, [string, number]>;
  views: EntityTable<ViewRow, 'projectId'>;
};

export function openDatabase(name = 'blunt-hem'): Database {
  const database = new Dexie(name) as Database;
  database.version(1).stores({
    projects: 'id, updated',
    bases: 'projectId',
    acts: '[projectId+number], projectId',
    views: 'projectId',
  });
  database
    .version(2)
    .stores({ patches: '[projectId+number], projectId' })
    .upgrade(async (transaction) => {
      const firstActs = new Map<string, number>();
      await transaction
        .table('bases')
        .toCollection()
        .modify((row) => {
          firstActs.set(row.projectId, row.firstAct);
          row.document = upgradedDocument(row.document);
          row.at = row.firstAct;
          delete row.firstAct;
        });
      await transaction
        .table('projects')
        .toCollection()
        .modify((row) => {
          row.firstAct = firstActs.get(row.id) ?? 0;
          row.done += row.firstAct;
        });
      // One at a time: together they may be larger than memory.
      for (const key of await transaction.table('acts').toCollection().primaryKeys()) {
        const { patch, ...act } = upgradedAct(await transaction.table('acts').get(key));
        const { projectId, number } = act as unknown as ActRow;
        await transaction.table('patches').put({ projectId, number, patch });
        await transaction.table('acts').put({ ...act, bytes: byteSize(patch.changes) });
      }
    });
  return database;
}
