import { strFromU8 } from 'fflate';
import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import type { Companions } from './companions.ts';
import { endingOf, FORMATS, formatOf, formatsInWords } from './formats.ts';

const AGAIN = 'Export the model again and open the new file.';

/**
 * Reads a model file, told apart by its ending and its first bytes.
 *
 * @param companions  files opened along with it, which it may name
 * @param report  called now and then with the part that has been read, where that can be told
 * @throws FileError with what is wrong and what to do
 */
export async function readModel(
  bytes: Uint8Array,
  fileName: string,
  companions?: Companions,
  report?: (fraction: number) => void,
): Promise<Model> {
  if (bytes.length === 0) throw new FileError(fileName, 'the file is empty.', AGAIN);
  // A GLB says so itself, whatever its name.
  const isGlb = strFromU8(bytes.subarray(0, 4), true) === 'glTF';
  const format = isGlb ? formatOf('x.glb') : formatOf(fileName);
  if (!format)
    throw new FileError(
      fileName,
      `models ending in .${endingOf(fileName)} cannot be opened.`,
      `Open an ${formatsInWords(FORMATS, 'or')} file.`,
    );
  const refusal = format.refuse?.(bytes);
  if (refusal) throw new FileError(fileName, refusal, AGAIN);
  return format.read(bytes, fileName, companions, report);
}
