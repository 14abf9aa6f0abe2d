import { FileError } from '@blunt-hem/core/errors';
import Joi from 'joi';

const schema = Joi.object({ faces: Joi.array().items(Joi.number().integer().min(0)).min(1).required() });
const REMEDY = 'It should read {"faces": [a, b, …]}, zero-based.';

/**
 * Reads a list of faces, `{"faces": [a, b, …]}`, zero-based as in the file.
 *
 * @throws FileError when the text is no such list
 */
export function readFaces(text: string, fileName: string): number[] {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new FileError(fileName, 'this is not JSON.', REMEDY);
  }
  const { value, error } = schema.validate(parsed, { convert: false });
  if (error) throw new FileError(fileName, `${error.message}.`, REMEDY);
  return value.faces;
}
