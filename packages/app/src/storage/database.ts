import type { HemDocument } from '@blunt-hem/core/document/document';
import type { Act } from '@blunt-hem/core/document/history';
import Dexie, { type EntityTable, type Table } from 'dexie';

export interface ProjectRow {
  readonly id: string;
  readonly name: string;
  readonly created: number;
  readonly updated: number;
  /** How many of the kept acts stand; the rest can be redone. */
  readonly done: number;
  readonly faces: number;
  readonly shells: number;
  readonly picture?: Blob;
  /** When it was thrown away; it can be taken back until the Rack is next opened. */
  readonly deleted?: number;
}

/** The document before the first kept act. */
export interface BaseRow {
  readonly projectId: string;
  readonly document: HemDocument;
  /** Number of its first act. */
  readonly firstAct: number;
}

export interface ActRow extends Act {
  readonly projectId: string;
  readonly number: number;
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
  return database;
}
