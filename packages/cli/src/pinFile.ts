import { FileError } from '@blunt-hem/core/errors';
import { type PinParam, pinSchema, type StayParam, staySchema } from '@blunt-hem/core/operations/handles';
import Joi from 'joi';

const SHAPE =
  'It should read {"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}.';

const schema = Joi.object({ pins: pinSchema.default([]), stays: staySchema.default([]) });

/**
 * Reads pins and stays for an unfold, with zero-based vertices and UVs of the tile.
 *
 * @throws FileError when the text is no such list
 */
export function readPins(text: string, fileName: string): { pins: PinParam[]; stays: StayParam[] } {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new FileError(fileName, 'this is not JSON.', SHAPE);
  }
  const { value, error } = schema.validate(parsed, { convert: false });
  if (error) throw new FileError(fileName, `${error.message}.`, SHAPE);
  return value;
}
