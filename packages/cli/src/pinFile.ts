import { FileError } from '@blunt-hem/core/errors';
import { pin, stay } from '@blunt-hem/core/operations/unfold/handles';
import { list, otherwise, record, type Taken } from '@blunt-hem/core/params';

const SHAPE =
  'It should read {"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}.';

const schema = record({ pins: otherwise(list(pin), []), stays: otherwise(list(stay), []) });

/**
 * Reads pins and stays for an unfold, with zero-based vertices and UVs of the tile.
 *
 * @throws FileError when the text is no such list
 */
export function readPins(text: string, fileName: string): Taken<typeof schema> {
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
