import { existsSync } from 'node:fs';
import { readdir, readFile, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { HemDocument } from '@blunt-hem/core/document/document';
import { setsForFile } from '@blunt-hem/core/document/setsForFile';
import { FileError, HemError } from '@blunt-hem/core/errors';
import { fileNameOf } from '@blunt-hem/core/formats/fileName';
import { endingOf, formatOf } from '@blunt-hem/core/formats/formats';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { writeSeams } from '@blunt-hem/core/formats/seamFile';
import { writeModel } from '@blunt-hem/core/formats/writeModel';
import type { Connectivity } from '@blunt-hem/core/mesh/connectivity';
import type { Model } from '@blunt-hem/core/mesh/model';
import { replaceFile } from './replaceFile.ts';

/** A model with the files beside it that it may name. */
export async function opened(input: string): Promise<Model> {
  const companions = new Map<string, Uint8Array>();
  const { alongside = [] } = formatOf(input) ?? {};
  const bytes = await fileBytes(input);
  const beside = alongside.length > 0 ? await readdir(dirname(input)) : [];
  const read = async (names: readonly string[]) => {
    for (const name of names) companions.set(name, await fileBytes(join(dirname(input), name)));
  };
  const isImage = (name: string) => IMAGE_ENDINGS.includes(endingOf(name));
  const wanted = beside.filter((name) => alongside.includes(endingOf(name)));
  await read(wanted.filter((name) => !isImage(name)));
  // A folder may hold images of many models: only those that are named are read.
  const texts = [...companions].flatMap(([name, text]) => (endingOf(name) === 'mtl' ? [text] : []));
  if (endingOf(input) === 'gltf') texts.push(bytes);
  const naming = texts.map((text) => unescaped(new TextDecoder().decode(text))).join('\n');
  await read(wanted.filter((name) => isImage(name) && naming.includes(name)));
  return readModel(bytes, basename(input), companions);
}

const IMAGE_ENDINGS = ['png', 'jpg', 'jpeg', 'webp'];

/** Names in glTF may be escaped, as addresses are. */
function unescaped(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/**
 * Writes a model in the format its name asks for: with all of its UV sets, or where the format holds one, the current. Files that it names
 * come beside it; those that are not its own (images, the library that was opened) only where there is none of that name yet.
 */
export async function save(out: string, document: HemDocument): Promise<void> {
  const [main, ...others] = await writeModel(document.model, setsForFile(document), basename(out));
  const library = fileNameOf(stemOf(basename(out)), 'mtl');
  for (const { name, bytes } of others) {
    const path = join(dirname(out), basename(name));
    if (endingOf(name) === 'bin' || name === library || !existsSync(path)) await replaceFile(path, bytes);
  }
  // Last, so that whoever sees it finds what it names.
  await replaceFile(out, main.bytes);
}

const stemOf = (name: string): string => name.replace(/\.[^.]*$/, '');

/** Writes a list of seams. */
export const saveSeams = (out: string, connectivity: Connectivity, edges: Iterable<number>): Promise<void> =>
  replaceFile(out, writeSeams(connectivity, edges));

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
