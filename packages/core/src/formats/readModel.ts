import { FileError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { readGlb } from './readGlb.ts';
import { readObj } from './readObj.ts';

/**
 * Reads a model file, told apart by its ending and its first bytes.
 *
 * @throws FileError with what is wrong and what to do
 */
export async function readModel(bytes: Uint8Array, fileName: string): Promise<Model> {
  const ending = fileName.slice(fileName.lastIndexOf('.') + 1).toLowerCase();
  if (bytes.length === 0) {
    throw new FileError(fileName, 'the file is empty.', 'Export the model again and open the new file.');
  }
  if (isGlb(bytes)) return readGlb(bytes, fileName);
  if (ending === 'glb') {
    throw new FileError(fileName, 'this is not a GLB file.', 'Export the model again and open the new file.');
  }
  if (ending !== 'obj') {
    throw new FileError(
      fileName,
      `models ending in .${ending} cannot be opened.`,
      'Open an OBJ or GLB file.',
    );
  }
  if (bytes.subarray(0, 4096).includes(0)) {
    throw new FileError(
      fileName,
      'this is not a text file, as an OBJ file is.',
      'Export the model again as OBJ or GLB.',
    );
  }
  return readObj(bytes, fileName);
}

const isGlb = (b: Uint8Array): boolean => b[0] === 0x67 && b[1] === 0x6c && b[2] === 0x54 && b[3] === 0x46;
