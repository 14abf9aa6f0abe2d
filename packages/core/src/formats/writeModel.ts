import type { Model } from '../mesh/model.ts';
import { formatOf } from './formats.ts';
import type { OutFile } from './outFile.ts';

/** UV sets as files have them, each `2 × cornerCount`, and which of them is worked on. */
export interface SetsForFile {
  readonly sets: readonly Float64Array[];
  readonly at: number;
}

/**
 * Writes a model in the format that the name of its file asks for: all of its UV sets, or where the format holds one, the one worked on.
 *
 * @returns the model first, and then the files that it names
 */
export async function writeModel(
  model: Model,
  { sets, at }: SetsForFile,
  fileName: string,
): Promise<readonly [OutFile, ...OutFile[]]> {
  const stem = fileName.replace(/\.[^.]*$/, '');
  const files = await formatOf(fileName)?.write?.(model, sets, at, stem);
  if (!files) throw new Error(`Nothing writes ${fileName}.`);
  const [main, ...rest] = files;
  return [{ ...main, name: fileName }, ...rest];
}
