import { FileError } from '@blunt-hem/core/errors';
import type Joi from 'joi';

/**
 * Reads JSON and checks it.
 *
 * @param remedy  how it should read, one sentence
 * @throws FileError when it is no JSON, or not as the schema has it
 */
export function readJson(text: string, fileName: string, schema: Joi.Schema, remedy: string) {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new FileError(fileName, 'this is not JSON.', remedy);
  }
  const { value, error } = schema.validate(parsed, { convert: false });
  if (error) throw new FileError(fileName, `${error.message}.`, remedy);
  return value;
}
