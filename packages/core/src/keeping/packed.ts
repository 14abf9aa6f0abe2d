import { strToU8 } from 'fflate';
import Joi from 'joi';
import type { NumberArray } from '../document/delta.ts';
import { HemError } from '../errors.ts';
import { bytesOf, type Checksum } from './checksum.ts';

/**
 * Plain data taken apart for keeping: a text, and beside it the arrays of numbers, which the text names by number and of which it
 * knows kind, length and checksum.
 */
export interface Packed {
  /** JSON: `{ arrays: ArrayNote[], value }`, where `{ "array": 3 }` stands for array number 3. */
  readonly text: string;
  /** Of the text. */
  readonly checksum: string;
  readonly arrays: readonly NumberArray[];
}

export const ARRAY_KINDS = { Float64Array, Uint32Array, Int32Array, Uint8Array } as const;

/** What the text says of an array. */
export interface ArrayNote {
  readonly kind: keyof typeof ARRAY_KINDS;
  readonly length: number;
  readonly checksum: string;
}

/** A text that was understood; its arrays are still to come. */
export interface Unpacking {
  readonly notes: readonly ArrayNote[];
  readonly value: unknown;
}

const schema = Joi.object({
  arrays: Joi.array()
    .items(
      Joi.object({
        kind: Joi.valid(...Object.keys(ARRAY_KINDS)).required(),
        length: Joi.number().integer().min(0).required(),
        checksum: Joi.string().length(16).required(),
      }),
    )
    .required(),
  value: Joi.any().required(),
}).unknown(false);

const damaged = (sentence: string) => new HemError('damaged', sentence);

/** @param value  plain objects, lists, strings, numbers and arrays of numbers; what is undefined is left out */
export function pack(value: unknown, checksum: Checksum): Packed {
  const arrays: NumberArray[] = [];
  const inner = JSON.stringify(value, (_, item) => {
    if (!ArrayBuffer.isView(item)) return item;
    arrays.push(item as NumberArray);
    return { array: arrays.length - 1 };
  });
  const notes = arrays.map((array) => ({
    kind: array.constructor.name,
    length: array.length,
    checksum: checksum(bytesOf(array)),
  }));
  const text = `{"arrays":${JSON.stringify(notes)},"value":${inner}}`;
  return { text, checksum: checksum(strToU8(text)), arrays };
}

/** @throws HemError when the text is not as it was packed */
export function unpack(text: string, kept: string, checksum: Checksum): Unpacking {
  if (checksum(strToU8(text)) !== kept) throw damaged('Its list of contents is damaged.');
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw damaged('Its list of contents is damaged.');
  }
  const { error } = schema.validate(parsed);
  if (error) throw damaged('Its list of contents is not as it should be.');
  const { arrays, value } = parsed as { arrays: ArrayNote[]; value: unknown };
  return { notes: arrays, value };
}

/** Bytes of an array that a note tells of. */
export const noteBytes = ({ kind, length }: ArrayNote): number =>
  length * ARRAY_KINDS[kind].BYTES_PER_ELEMENT;

/** The array of a note, for its bytes to be filled in. */
export const emptyArray = ({ kind, length }: ArrayNote): NumberArray => new ARRAY_KINDS[kind](length);

export const isWhole = (array: NumberArray, { checksum: kept }: ArrayNote, checksum: Checksum): boolean =>
  checksum(bytesOf(array)) === kept;

/**
 * Puts the arrays back in their places. One that is undefined, being damaged, leaves its place undefined.
 *
 * @throws HemError when the text names an array that is not there
 */
export function repacked(value: unknown, arrays: readonly (NumberArray | undefined)[]): unknown {
  if (Array.isArray(value)) return value.map((item) => repacked(item, arrays));
  if (typeof value !== 'object' || value === null) return value;
  if ('array' in value && Object.keys(value).length === 1) {
    const at = value.array as number;
    if (!Number.isInteger(at) || at < 0 || at >= arrays.length)
      throw damaged('Its list of contents is not as it should be.');
    return arrays[at];
  }
  return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, repacked(item, arrays)]));
}
