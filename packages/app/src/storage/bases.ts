import type { HemDocument } from '@blunt-hem/core/document/document';
import { upgradedIfDocument } from '@blunt-hem/core/document/upgrade';
import { HemError } from '@blunt-hem/core/errors';
import { type Checksum, checksums } from '@blunt-hem/core/persistence/checksum';
import type { Packed } from '@blunt-hem/core/persistence/packed';
import { recoverDocument } from '@blunt-hem/core/persistence/recover';
import { findFault } from '@blunt-hem/core/persistence/validateDocument';
import { BASE, BASES, type BaseSlot, type Database, OTHER_BASE, TEXT_AGAIN, tablesOf } from './database.ts';
import { olderBase } from './older.ts';
import { readable } from './reading.ts';
import { deleteRecords, putRecord, readRecord } from './records.ts';

/**
 * The base of a project: a whole document, from which acts are counted. It has two slots, which take turns, so that the last one stays
 * until the next has been read back; and its text is kept twice.
 */

/** Where the base of a project is. */
export interface BasePlace {
  /** The act before which it stands. */
  readonly at: number;
  /** Absent where a store of version 1 or 2 has it in a table of its own. */
  readonly slot?: BaseSlot;
}

export const otherSlot = ({ slot }: BasePlace): BaseSlot => (slot === BASE ? OTHER_BASE : BASE);

/** Puts a base into a slot, whatever was there; to be called in a transaction. */
export async function putBase(database: Database, id: string, slot: BaseSlot, base: Packed): Promise<void> {
  await putRecord(database, id, slot, base);
  const { text, checksum } = base;
  await database.records.put({ projectId: id, number: TEXT_AGAIN[slot], text, checksum });
}

/** No act starts from there any more; what it holds may still be wanted when all else is damaged. */
export async function markPassed(database: Database, id: string, { slot }: BasePlace): Promise<void> {
  if (slot === undefined) {
    await database.bases.delete(id);
    return;
  }
  await database.records.update([id, slot], { passed: true });
  // It would not say that it is passed.
  await database.records.delete([id, TEXT_AGAIN[slot]]);
}

/**
 * Reads a base back that was just written, and only then lets go of the last one.
 *
 * @returns the one that stands: the last, where the new one cannot be read
 */
export async function confirmBase(
  database: Database,
  id: string,
  fresh: BasePlace & { readonly slot: BaseSlot },
  last: BasePlace,
): Promise<BasePlace> {
  const sum = await checksums();
  try {
    const reading = await readRecord(database, id, fresh.slot, sum);
    if (!reading?.whole) return last;
    await database.transaction('rw', tablesOf(database), async () => {
      await database.bases.delete(id);
      if (last.slot === undefined) return;
      await deleteRecords(database, id, last.slot, last.slot + 1);
      await database.records.delete([id, TEXT_AGAIN[last.slot]]);
    });
  } catch {
    // Both stay: opening takes the newer one that is whole.
  }
  return fresh;
}

interface Base extends Partial<BasePlace> {
  readonly document: HemDocument;
  /** Whether it is one of version 1, and acts have their patches with them. */
  readonly first: boolean;
  /** Whether it may not be as it was written. */
  readonly checksumDiffers: boolean;
  readonly problem?: string;
}

/** A base as it was read; `at` absent when acts cannot start from it. */
interface FoundBase extends Partial<BasePlace> {
  readonly candidate: unknown;
  readonly unverified: unknown;
  readonly first: boolean;
  readonly checksumDiffers: boolean;
}

/**
 * The base of a project: of those that are whole the newest, or else what is whole of one.
 *
 * @throws HemError when none has even a model
 */
export async function readBase(database: Database, id: string, checksum: Checksum): Promise<Base> {
  const found = await findBases(database, id, checksum);
  const newest = found.sort((a, b) => (b.at ?? -1) - (a.at ?? -1));
  for (const mayDiffer of [false, true]) {
    for (const { candidate, unverified, at, slot, first, checksumDiffers } of newest) {
      const document = checksumDiffers ? unverified : candidate;
      if (checksumDiffers !== mayDiffer || at === undefined || findFault(document)) continue;
      return { document: document as HemDocument, at, slot, first, checksumDiffers };
    }
  }
  for (const reads of ['candidate', 'unverified'] as const) {
    for (const each of newest) {
      const document = recoverDocument(each[reads]);
      if (!document) continue;
      const problem =
        reads === 'candidate'
          ? 'This project is damaged in the store. Its model is whole, with some of its seams and UVs; what was done before cannot be taken back.'
          : 'This project is damaged in the store, its model too: it can be read as it stands, and may be bent somewhere. What was done before cannot be taken back.';
      return { document, first: each.first, checksumDiffers: false, problem };
    }
  }
  throw new HemError('damaged-model', 'The model of this project is damaged in the store, or missing.');
}

/** Every base that is kept of a project and can be understood. */
async function findBases(database: Database, id: string, checksum: Checksum): Promise<FoundBase[]> {
  const found: FoundBase[] = [];
  for (const slot of BASES) {
    const reading = await readable(readRecord(database, id, slot, checksum, TEXT_AGAIN[slot]));
    if (!reading) continue;
    const value = reading.value as { document?: unknown; at?: unknown } | null;
    const unverified = (reading.unverified as typeof value)?.document;
    const row = await readable(database.records.get([id, slot]));
    found.push({
      candidate: upgradedIfDocument(value?.document),
      unverified: upgradedIfDocument(unverified),
      at: row?.passed === true || !Number.isInteger(value?.at) ? undefined : (value?.at as number),
      slot,
      first: false,
      checksumDiffers: reading.checksumDiffers,
    });
  }
  const older = await readable(olderBase(database, id));
  if (older) {
    const document = upgradedIfDocument(older.document);
    const at = Number.isInteger(older.at) ? (older.at as number) : undefined;
    found.push({ candidate: document, unverified: document, at, first: older.first, checksumDiffers: false });
  }
  return found;
}
