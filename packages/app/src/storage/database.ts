import type { Delta } from '@blunt-hem/core/document/delta';
import type { HemDocument } from '@blunt-hem/core/document/document';
import type { Act } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import Dexie, { type EntityTable, type Table } from 'dexie';

export interface ProjectRow {
  readonly id: string;
  /** Of any length. */
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
  /** When it was taken off the Rack, milliseconds since 1970. */
  readonly deleted?: number;
  /** What was found to be damaged when it was last opened. */
  readonly damage?: string;
  /** The id that it had in the backup it was put back from, where another project had that here. */
  readonly from?: string;
}

export interface ActRow extends Act {
  readonly projectId: string;
  readonly number: number;
  /** What its patch takes, bytes. */
  readonly bytes: number;
}

/** Number of the record that holds the base; records from 0 on hold what the act of their number changed. */
export const BASE = -1;
/** Where the next base goes while the last one still stands, and so in turn. */
export const OTHER_BASE = Number.MIN_SAFE_INTEGER;
export const BASES = [BASE, OTHER_BASE] as const;
export type BaseSlot = (typeof BASES)[number];
/** Number of the record that holds the text of a base once more: without it no array of the model could be told from another. */
export const TEXT_AGAIN: Readonly<Record<BaseSlot, number>> = {
  [BASE]: Number.MIN_SAFE_INTEGER + 1,
  [OTHER_BASE]: Number.MIN_SAFE_INTEGER + 2,
};
/** Records between these, both left out, are trials. */
export const TRIALS = [Number.MIN_SAFE_INTEGER + 2, BASE] as const;

/** What is large, packed: see `records.ts`. */
export interface RecordRow {
  readonly projectId: string;
  readonly number: number;
  readonly text: string;
  /** Of the text. */
  readonly checksum: string;
  /** Of a base from which no act that is kept can start: those after it were done anew from before it. */
  readonly passed?: boolean;
}

/** A stretch of the arrays of a record. */
export interface PieceRow {
  readonly projectId: string;
  readonly number: number;
  readonly part: number;
  /** Where among the bytes of the record it begins. */
  readonly at: number;
  readonly bytes: Uint8Array;
}

/** How the Bench was left: cameras, stage, what is shown. */
export interface ViewRow {
  readonly projectId: string;
  readonly view: unknown;
}

/** The base as databases of version 1 and 2 keep it. */
export interface OldBaseRow {
  readonly projectId: string;
  readonly document: HemDocument;
  readonly at: number;
}

/** What an act changed, as databases of version 2 keep it; those of version 1 keep it with the act. */
export interface OldDeltaRow {
  readonly projectId: string;
  readonly number: number;
  readonly patch: Delta;
}

export type Database = Dexie & {
  projects: EntityTable<ProjectRow, 'id'>;
  acts: Table<ActRow, [string, number]>;
  records: Table<RecordRow, [string, number]>;
  pieces: Table<PieceRow, [string, number, number]>;
  views: EntityTable<ViewRow, 'projectId'>;
  bases: EntityTable<OldBaseRow, 'projectId'>;
  patches: Table<OldDeltaRow, [string, number]>;
};

const VERSION = 15;

/**
 * The database of the app. Nothing in it is rewritten when a newer app first opens it: what earlier versions kept stays as it is, and is
 * read as it is (`older.ts`), until the project it belongs to has been opened and its base moves on.
 */
export function databaseNamed(name = 'blunt-hem'): Database {
  // Not opened by the first that asks something of it: first it is looked whose it is.
  const database = new Dexie(name, { autoOpen: false }) as Database;
  database.version(1).stores({
    projects: 'id, updated',
    bases: 'projectId',
    acts: '[projectId+number], projectId',
    views: 'projectId',
  });
  database.version(2).stores({ patches: '[projectId+number], projectId' });
  database.version(3).stores({ records: '[projectId+number]', pieces: '[projectId+number+part]' });
  // 4: documents tell whether shells keep their places; 5: and have patches; 6: and methods, smoothed faces, pins and stays; 7: and grain lines, and projects have trials; 8: the base has two places; 9: shells may be locked; 10: each UV set has marks of its own; 11: and tiles; 12: materials have images; 13: shells are kept together; 14: grain lines tell which way they run; 15: libraries of an OBJ file, and PLY files, are kept. The tables are the same, and an earlier app must not read them.
  database.version(VERSION).stores({});
  return database;
}

/** Everything a project has, for one transaction. */
export const tablesOf = ({ projects, acts, records, pieces, views, bases, patches }: Database) => [
  projects,
  acts,
  records,
  pieces,
  views,
  bases,
  patches,
];

/** The version of a database as it lies in the browser, 0 where there is none. It is looked at, and not opened. */
function versionLying(name: string): Promise<number> {
  // Where pages may keep nothing, even asking fails.
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(name);
    // There was none: nor shall there be one of no version.
    request.onupgradeneeded = () => request.transaction?.abort();
    request.onsuccess = () => {
      const { version } = request.result;
      request.result.close();
      resolve(version / 10);
    };
    request.onerror = () => (request.error?.name === 'AbortError' ? resolve(0) : reject(request.error));
  });
}

/**
 * Opens a database, unless it is open.
 *
 * @throws HemError when a later version of the app has written it, which is left as it is; and when the browser gives none
 */
export async function openDatabase(database: Database): Promise<Database> {
  if (database.isOpen()) return database;
  const version = await versionLying(database.name).catch((error: unknown) => {
    throw noStore(error);
  });
  if (version > VERSION)
    throw new HemError(
      'newer-store',
      `What this browser keeps was written by a later Blunt Hem (its version is ${Math.floor(version)}, this one knows ${VERSION}). Nothing was touched. Start the later one to go on.`,
    );
  await database.open().catch((error: unknown) => {
    throw noStore(error);
  });
  return database;
}

/** What an artist reads when the browser gives this page no store at all. */
const noStore = (cause: unknown) =>
  Object.assign(
    new HemError(
      'no-store',
      'This browser keeps nothing for this page: perhaps its site data is blocked, or the disk is full. You can open a model all the same, work on it and export it; nothing of it is kept when its tab is closed.',
    ),
    { cause },
  );
