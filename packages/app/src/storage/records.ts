import type { NumberArray } from '@blunt-hem/core/document/arrayDelta';
import { HemError } from '@blunt-hem/core/errors';
import { attempt } from '@blunt-hem/core/persistence/attempt';
import { bytesOf, type Checksum } from '@blunt-hem/core/persistence/checksum';
import {
  emptyArray,
  noteBytes,
  type Packed,
  type Reading,
  readingOf,
  type Unpacking,
  unpack,
} from '@blunt-hem/core/persistence/packed';
import Joi from 'joi';
import type { Database, PieceRow } from './database.ts';
import { readable } from './reading.ts';

/**
 * Large values, kept as a text and pieces of bytes: browsers neither clone nor store a value of a gigabyte, and a piece that is damaged
 * takes no more with it than the arrays that lie in it.
 */

/** Most bytes of a piece. */
const PIECE = 2 ** 24;

const all = (id: string, number: number) =>
  [
    [id, number, -Infinity],
    [id, number, Infinity],
  ] as const;

/** Puts a record in place of what was there; to be called in a transaction. */
export async function putRecord(
  { records, pieces }: Database,
  projectId: string,
  number: number,
  { text, checksum, arrays }: Packed,
): Promise<void> {
  await pieces
    .where('[projectId+number+part]')
    .between(...all(projectId, number))
    .delete();
  await records.put({ projectId, number, text, checksum });
  let [part, at] = [0, 0];
  for (const bytes of piecesOf(arrays.map(bytesOf))) {
    await pieces.add({ projectId, number, part: part++, at, bytes });
    at += bytes.length;
  }
}

function* piecesOf(arrays: readonly Uint8Array[]): Generator<Uint8Array> {
  let left = arrays.reduce((sum, { length }) => sum + length, 0);
  let piece = new Uint8Array(Math.min(PIECE, left));
  let filled = 0;
  for (const array of arrays) {
    for (let taken = 0; taken < array.length; ) {
      const some = array.subarray(taken, taken + piece.length - filled);
      piece.set(some, filled);
      taken += some.length;
      filled += some.length;
      if (filled < piece.length) continue;
      yield piece;
      left -= filled;
      piece = new Uint8Array(Math.min(PIECE, left));
      filled = 0;
    }
  }
}

/** Removes records from one number to before another; to be called in a transaction. */
export async function deleteRecords(
  { records, pieces }: Database,
  id: string,
  from: number,
  to: number,
): Promise<void> {
  await records.where('[projectId+number]').between([id, from], [id, to]).delete();
  await pieces.where('[projectId+number+part]').between([id, from, -Infinity], [id, to, -Infinity]).delete();
}

const recordShape = Joi.object({
  projectId: Joi.string().required(),
  number: Joi.number().unsafe().required(),
  text: Joi.string().required(),
  checksum: Joi.string().required(),
  passed: Joi.boolean(),
}).required();
const pieceShape = Joi.object({
  projectId: Joi.string().required(),
  number: Joi.number().unsafe().required(),
  part: Joi.number().required(),
  at: Joi.number().integer().min(0).required(),
  bytes: Joi.object().instance(Uint8Array).required(),
}).required();

/**
 * Reads a record back.
 *
 * @param again  number of the record that holds its text once more
 * @returns undefined when there is none
 * @throws HemError when its text cannot be understood
 */
export async function readRecord(
  database: Database,
  id: string,
  number: number,
  checksum: Checksum,
  again?: number,
): Promise<Reading | undefined> {
  const unpacking = await readText(database, id, again === undefined ? [number] : [number, again], checksum);
  if (!unpacking) return undefined;
  const { notes } = unpacking;
  const starts: number[] = [0];
  for (const note of notes) starts.push((starts.at(-1) as number) + noteBytes(note));
  const keys = await database.pieces
    .where('[projectId+number+part]')
    .between(...all(id, number))
    .primaryKeys();
  // Nothing is made for bytes that cannot be there.
  const most = keys.length * PIECE;
  const arrays = notes.map((note, i) => (starts[i + 1] <= most ? emptyArray(note) : undefined));
  const missing = notes.map(noteBytes);
  for (const key of keys) {
    // One that cannot be read, or is garbled, leaves its arrays to be found out.
    const piece = await readable(database.pieces.get(key));
    if (piece && !pieceShape.validate(piece, { convert: false }).error) fill(arrays, missing, starts, piece);
  }
  return readingOf(
    unpacking,
    arrays.map((array, i) => (missing[i] === 0 ? array : undefined)),
    checksum,
  );
}

/** The first text of some records that is as it was written, or else the first that can be understood. */
async function readText(
  { records }: Database,
  id: string,
  numbers: readonly number[],
  checksum: Checksum,
): Promise<Unpacking | undefined> {
  let any = false;
  let checksumDiffers: Unpacking | undefined;
  for (const number of numbers) {
    const row = await readable(records.get([id, number]));
    any ||= row !== undefined;
    if (!row || recordShape.validate(row, { convert: false }).error) continue;
    const unpacking = attempt(() => unpack(row.text, row.checksum, checksum));
    if (unpacking && !unpacking.checksumDiffers) return unpacking;
    checksumDiffers ??= unpacking;
  }
  if (any && !checksumDiffers) throw new HemError('damaged', 'Its list of contents is damaged.');
  return checksumDiffers;
}

/** @param missing  bytes of each array that have not been filled in yet */
function fill(
  arrays: readonly (NumberArray | undefined)[],
  missing: number[],
  starts: readonly number[],
  { at, bytes }: PieceRow,
): void {
  for (const [i, array] of arrays.entries()) {
    const from = Math.max(at, starts[i]);
    const to = Math.min(at + bytes.length, starts[i + 1]);
    if (!array || from >= to) continue;
    bytesOf(array).set(bytes.subarray(from - at, to - at), from - starts[i]);
    missing[i] -= to - from;
  }
}
