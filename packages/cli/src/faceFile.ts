import Joi from 'joi';
import { readJson } from './jsonFile.ts';

const schema = Joi.object({ faces: Joi.array().items(Joi.number().integer().min(0)).min(1).required() });
const REMEDY = 'It should read {"faces": [a, b, …]}, zero-based.';

/**
 * Reads a list of faces, `{"faces": [a, b, …]}`, zero-based as in the file.
 *
 * @throws FileError when the text is no such list
 */
export function readFaces(text: string, fileName: string): number[] {
  return readJson(text, fileName, schema, REMEDY).faces;
}
