import { HemError } from '@blunt-hem/core/errors';
import { bytesOf, type Checksum } from '@blunt-hem/core/keeping/checksum';
import {
  emptyArray,
  isWhole,
  noteBytes,
  type Packed,
  repacked,
  unpack,
} from '@blunt-hem/core/keeping/packed';
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
  number: Joi.number().required(),
  text: Joi.string().required(),
  checksum: Joi.string().required(),
});
const pieceShape = Joi.object({
  projectId: Joi.string().required(),
  number: Joi.number().required(),
  part: Joi.number().required(),
  at: Joi.number().integer().min(0).required(),
  bytes: Joi.object().instance(Uint8Array).required(),
});

/**
 * Reads a record back. Arrays that are damaged are undefined in it.
 *
 * @returns undefined when there is none
 * @throws HemError when its text is damaged
 */
export async function readRecord(
  { records, pieces }: Database,
  id: string,
  number: number,
  checksum: Checksum,
): Promise<unknown> {
  const row = await records.get([id, number]);
  if (row === undefined) return undefined;
  if (recordShape.validate(row, { convert: false }).error)
    throw new HemError('damaged', 'Its list of contents is damaged.');
  const { notes, value } = unpack(row.text, row.checksum, checksum);
  const arrays = notes.map(emptyArray);
  const starts: number[] = [0];
  for (const note of notes) starts.push((starts.at(-1) as number) + noteBytes(note));
  const keys = await pieces
    .where('[projectId+number+part]')
    .between(...all(id, number))
    .primaryKeys();
  for (const key of keys) {
    // One that cannot be read, or is garbled, leaves its arrays to be found out by their checksums.
    const piece = await readable(pieces.get(key));
    if (piece && !pieceShape.validate(piece, { convert: false }).error)
      fill(arrays.map(bytesOf), starts, piece);
  }
  const whole = arrays.map((array, i) => (isWhole(array, notes[i], checksum) ? array : undefined));
  return repacked(value, whole);
}

function fill(arrays: readonly Uint8Array[], starts: readonly number[], { at, bytes }: PieceRow): void {
  for (let i = 0; i < arrays.length; i++) {
    const from = Math.max(at, starts[i]);
    const to = Math.min(at + bytes.length, starts[i + 1]);
    if (from < to) arrays[i].set(bytes.subarray(from - at, to - at), from - starts[i]);
  }
}
