import { type Checksum, checksums } from '@blunt-hem/core/persistence/checksum';
import { pack } from '@blunt-hem/core/persistence/packed';
import { validateTrial } from '@blunt-hem/core/persistence/validateTrial';
import type { Trial } from '@blunt-hem/core/trials/trial';
import { BASE, type Database, TRIALS } from './database.ts';
import { readable } from './reading.ts';
import { deleteRecords, putRecord, readRecord } from './records.ts';
import { saving } from './saving.ts';

/** Trials are records below the base, the first next to it. */
const recordOf = (trial: number): number => BASE - 1 - trial;

/** Keeps a trial. To be called with others of its project in one transaction, or by itself. */
export async function putTrial(
  database: Database,
  projectId: string,
  trial: Trial,
  checksum: Checksum,
): Promise<void> {
  await putRecord(database, projectId, recordOf(trial.id), pack(trial, checksum));
}

export async function keepTrial(database: Database, projectId: string, trial: Trial): Promise<void> {
  const sum = await checksums();
  await saving(
    database.transaction('rw', [database.records, database.pieces], () =>
      putTrial(database, projectId, trial, sum),
    ),
    'This trial could not be stored; it is there as long as the project is open',
  );
}

export async function dropTrial(database: Database, projectId: string, id: number): Promise<void> {
  await saving(
    database.transaction('rw', [database.records, database.pieces], () =>
      deleteRecords(database, projectId, recordOf(id), recordOf(id - 1)),
    ),
  );
}

/** The trials of a project that are whole; a damaged one, or one that is let go of meanwhile, is no loss that anything else hangs on. */
export async function readTrials(
  database: Database,
  projectId: string,
): Promise<{ readonly trials: readonly Trial[]; readonly lost: number }> {
  const checksum = await checksums();
  const [from, to] = TRIALS;
  const keys = await database.records
    .where('[projectId+number]')
    .between([projectId, from], [projectId, to], false, false)
    .primaryKeys();
  const found: Trial[] = [];
  for (const [, number] of keys) {
    const reading = await readable(readRecord(database, projectId, number, checksum));
    const trial = reading?.checksumDiffers ? undefined : validateTrial(reading?.value);
    if (trial && recordOf(trial.id) === number) found.push(trial);
  }
  return { trials: found, lost: keys.length - found.length };
}
