import { basename } from 'node:path';
import { sessionOverUvs } from '../asking.ts';
import { carried } from '../carried.ts';
import { readFaces } from '../faceFile.ts';
import { fileText } from '../files.ts';

export interface RelaxOptions {
  readonly out: string;
  readonly faces?: string;
  readonly seconds?: number;
  readonly balance: number;
  readonly set?: string;
}

/** Relaxes the UVs a file has, all of them or some faces, and writes the model. */
export async function run(
  input: string,
  { out, faces: list, seconds, balance, set }: RelaxOptions,
): Promise<object> {
  const session = await sessionOverUvs(input, set);
  const faces = list === undefined ? undefined : readFaces(await fileText(list), basename(list));
  return carried(session, input, out, 'relax', { faces, seconds, balance });
}
