import { type Database, openDatabase } from '../storage/database.ts';
import { answer } from './answer.ts';
import type { Answer } from './protocol.ts';

/** Answers what the database is needed for: it is opened if it is not, for the first time or because it was closed behind our back. */
export type Stored = <T>(work: () => T | Promise<T>) => Promise<Answer<T>>;

export const storedIn =
  (database: Database): Stored =>
  (work) =>
    answer(async () => {
      await openDatabase(database);
      return work();
    });
