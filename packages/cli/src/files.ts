import { readdir, readFile, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { HemDocument } from '@blunt-hem/core/document/document';
import { setsForFile } from '@blunt-hem/core/document/setsForFile';
import { FileError, HemError } from '@blunt-hem/core/errors';
import { endingOf, formatOf } from '@blunt-hem/core/formats/formats';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { writeSeams } from '@blunt-hem/core/formats/seamFile';
import type { Connectivity } from '@blunt-hem/core/mesh/connectivity';
import type { Model } from '@blunt-hem/core/mesh/model';
import { replaceFile } from './replaceFile.ts';

/** A model with the files beside it that it may name. */
export async function opened(input: string): Promise<Model> {
  const companions = new Map<string, Uint8Array>();
  const { alongside = [] } = formatOf(input) ?? {};
  if (alongside.length > 0) {
    for (const name of await readdir(dirname(input))) {
      if (alongside.includes(endingOf(name)))
        companions.set(name, await fileBytes(join(dirname(input), name)));
    }
  }
  return readModel(await fileBytes(input), basename(input), companions);
}

/** Writes a model in the format its name asks for: with all of its UV sets, or where the format holds one, the current. */
export async function save(out: string, document: HemDocument): Promise<void> {
  const { sets, at } = setsForFile(document);
  const bytes = await formatOf(out)?.write?.(document.model, sets, at);
  if (bytes) await replaceFile(out, bytes);
}

/** Writes a list of seams. */
export const saveSeams = (out: string, links: Connectivity, edges: Iterable<number>): Promise<void> =>
  replaceFile(out, writeSeams(links, edges));

/**
 * @throws HemError when two names lead to one file, directly or by a link: the result would take the place of what it was made from
 */
export async function refuseSameFile(input: string, out: string): Promise<void> {
  const [from, to] = await Promise.all([input, out].map((path) => stat(path).catch(() => undefined)));
  if (!from?.isFile() || from.dev !== to?.dev || from.ino !== to.ino) return;
  throw new HemError(
    'wrong-parameters',
    `--out ${out} is the model itself. Choose another name, or add --over to put the result in its place. Nothing was written.`,
  );
}

export async function fileBytes(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch {
    throw new FileError(basename(path), 'the file cannot be opened.', 'Check its name and folder.');
  }
}

export const fileText = async (path: string): Promise<string> =>
  new TextDecoder().decode(await fileBytes(path));
