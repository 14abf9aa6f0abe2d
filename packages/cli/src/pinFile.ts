import { pin, stay } from '@blunt-hem/core/operations/unfold/handles';
import { list, otherwise, record, type Taken } from '@blunt-hem/core/params';
import { readJson } from './jsonFile.ts';

const SHAPE =
  'It should read {"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}.';

const schema = record({ pins: otherwise(list(pin), []), stays: otherwise(list(stay), []) });

/**
 * Reads pins and stays for an unfold, with zero-based vertices and UVs of the tile.
 *
 * @throws FileError when the text is no such list
 */
export function readPins(text: string, fileName: string): Taken<typeof schema> {
  return readJson(text, fileName, schema, SHAPE);
}
