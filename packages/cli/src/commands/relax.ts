import { basename } from 'node:path';
import { FileError } from '@blunt-hem/core/errors';
import { sessionOver } from '../asking.ts';
import { carried } from '../carried.ts';
import { readFaces } from '../faceFile.ts';
import { fileText } from '../files.ts';

export interface RelaxOptions {
  readonly out: string;
  readonly faces?: string;
  readonly seconds?: number;
  readonly balance: number;
}

/** Relaxes the UVs a file has, all of them or some faces, and writes the model. */
export async function run(
  input: string,
  { out, faces: list, seconds, balance }: RelaxOptions,
): Promise<object> {
  const session = await sessionOver(input);
  if (session.document.model.uvSets.length === 0)
    throw new FileError(basename(input), 'there are no UVs in this file.', 'Unfold it first.');
  const faces = list === undefined ? undefined : readFaces(await fileText(list), basename(list));
  return carried(session, input, out, 'relax', { faces, seconds, balance });
}
