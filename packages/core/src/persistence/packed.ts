import { strToU8 } from 'fflate';
import Joi from 'joi';
import type { NumberArray } from '../document/arrayDelta.ts';
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

export const ARRAY_KINDS = { Float64Array, Uint32Array, Int32Array, Uint16Array, Uint8Array } as const;

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
  /** Whether the text has another checksum than was kept of it: then it may say what nobody wrote. */
  readonly checksumDiffers: boolean;
}

/** What was read back of a packed value. */
export interface Reading {
  /** With arrays whose checksum differs left undefined. */
  readonly value: unknown;
  /** With every array of the right length as it reads, whatever its checksum. The same as `value` when all are whole. */
  readonly unverified: unknown;
  /** Whether the text has another checksum than was kept of it. */
  readonly checksumDiffers: boolean;
  /** Whether text and arrays are all there as they were written. */
  readonly whole: boolean;
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
  const inner = JSON.stringify(withoutArrays(value, arrays));
  const notes = arrays.map((array) => ({
    kind: array.constructor.name,
    length: array.length,
    checksum: checksum(bytesOf(array)),
  }));
  const text = `{"arrays":${JSON.stringify(notes)},"value":${inner}}`;
  return { text, checksum: checksum(strToU8(text)), arrays };
}

/** A copy in which each array of numbers is the place of one in `arrays`, to which it is added. */
function withoutArrays(value: unknown, arrays: NumberArray[]): unknown {
  if (ArrayBuffer.isView(value)) return { array: arrays.push(value as NumberArray) - 1 };
  if (isPlain(value)) return value;
  if (Array.isArray(value)) return value.map((item) => withoutArrays(item, arrays));
  return Object.fromEntries(
    Object.entries(value as object).map(([key, item]) => [key, withoutArrays(item, arrays)]),
  );
}

/** Whether nothing hides in a value: lists of a million edges are left as they are. */
const isPlain = (value: unknown): boolean =>
  typeof value !== 'object' ||
  value === null ||
  (Array.isArray(value) && value.every((item) => typeof item !== 'object' || item === null));

/**
 * @param kept  the checksum that was kept of the text: one that differs is told, and no reason by itself to lose what can be read
 * @throws HemError when the text cannot be understood
 */
export function unpack(text: string, kept: string, checksum: Checksum): Unpacking {
  const checksumDiffers = checksum(strToU8(text)) !== kept;
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw damaged('Its list of contents is damaged.');
  }
  const { error } = schema.validate(parsed);
  if (error) throw damaged('Its list of contents is not as it should be.');
  const { arrays, value } = parsed as { arrays: ArrayNote[]; value: unknown };
  return { notes: arrays, value, checksumDiffers };
}

/** Bytes of an array that a note tells of. */
export const noteBytes = ({ kind, length }: ArrayNote): number =>
  length * ARRAY_KINDS[kind].BYTES_PER_ELEMENT;

/** The array of a note, for its bytes to be filled in. */
export const emptyArray = ({ kind, length }: ArrayNote): NumberArray => new ARRAY_KINDS[kind](length);

const isWhole = (array: NumberArray, { checksum: kept }: ArrayNote, checksum: Checksum): boolean =>
  checksum(bytesOf(array)) === kept;

/** @param arrays  as they read, in the order of the notes; undefined where nothing of the right length was found */
export function readingOf(
  { notes, value, checksumDiffers }: Unpacking,
  arrays: readonly (NumberArray | undefined)[],
  checksum: Checksum,
): Reading {
  const sound = arrays.map((array, i) => (array && isWhole(array, notes[i], checksum) ? array : undefined));
  const strict = repacked(value, sound);
  const unverified = sound.every((array, i) => array === arrays[i]) ? strict : repacked(value, arrays);
  return {
    value: strict,
    unverified,
    checksumDiffers,
    whole: !checksumDiffers && !sound.includes(undefined),
  };
}

/** Nothing that is kept is nested deeper. */
const DEEPEST = 100;

/**
 * Puts the arrays back in their places. One that is undefined, being damaged, leaves its place undefined.
 *
 * @throws HemError when the text names an array that is not there, or is nested as nothing of ours is
 */
function repacked(value: unknown, arrays: readonly (NumberArray | undefined)[], depth = 0): unknown {
  if (depth > DEEPEST) throw damaged('Its list of contents is not as it should be.');
  if (isPlain(value)) return value;
  if (Array.isArray(value)) return value.map((item) => repacked(item, arrays, depth + 1));
  const fields = value as Record<string, unknown>;
  if ('array' in fields && Object.keys(fields).length === 1) {
    const at = fields.array as number;
    if (!Number.isInteger(at) || at < 0 || at >= arrays.length)
      throw damaged('Its list of contents is not as it should be.');
    return arrays[at];
  }
  return Object.fromEntries(
    Object.entries(fields).map(([key, item]) => [key, repacked(item, arrays, depth + 1)]),
  );
}
