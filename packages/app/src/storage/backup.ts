import { FileError } from '@blunt-hem/core/errors';
import { fileNameOf } from '@blunt-hem/core/keeping/fileName';
import { type Project, readProject } from '@blunt-hem/core/keeping/projectFile';
import {
  BlobReader,
  BlobWriter,
  type FileEntry,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import Joi from 'joi';
import type { ProjectRow } from './database.ts';

/**
 * The whole Rack as one file: a zip of project files, each as it would be exported by itself, with `rack.json` to tell what is what. A
 * project can be taken out of it with any program that opens zips.
 */

export type Facts = Pick<ProjectRow, 'id' | 'name' | 'created' | 'updated' | 'deleted'>;

/** One project on its way into a backup or out of it. */
export interface BackedUp<Content> {
  readonly facts: Facts;
  readonly content: Content;
  readonly picture?: Blob;
  readonly view?: unknown;
}

const FORMAT = 'blunt-hem-rack';
const VERSION = 1;

const listShape = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.number().integer().min(1).required(),
  projects: Joi.array()
    .items(
      Joi.object({
        file: Joi.string().required(),
        picture: Joi.string(),
        view: Joi.any(),
        facts: Joi.object({
          id: Joi.string().max(100).required(),
          name: Joi.string().allow('').required(),
          created: Joi.number().min(0).required(),
          updated: Joi.number().min(0).required(),
          deleted: Joi.number().min(0),
        }).required(),
      }),
    )
    .required(),
});

interface Listed {
  readonly file: string;
  readonly picture?: string;
  readonly view?: unknown;
  readonly facts: Facts;
}

/** @param projects  one at a time, so that no two need be in memory; their content is that of a project file */
export async function writeBackup(projects: AsyncIterable<BackedUp<Uint8Array>>): Promise<Blob> {
  const zip = new ZipWriter(new BlobWriter('application/zip'), { level: 0, useWebWorkers: false });
  const list: Listed[] = [];
  for await (const { facts, content, picture, view } of projects) {
    const number = String(list.length + 1).padStart(4, '0');
    const file = `projects/${number} ${fileNameOf(facts.name, 'hemproject')}`;
    await zip.add(file, new Uint8ArrayReader(content));
    const image = picture && `pictures/${number}.png`;
    if (image) await zip.add(image, new BlobReader(picture));
    list.push({ file, picture: image, view, facts });
  }
  const text = JSON.stringify({ format: FORMAT, version: VERSION, projects: list });
  await zip.add('rack.json', new BlobReader(new Blob([text])));
  return zip.close();
}

/** Most bytes that the list of a backup may have. */
const LONGEST_LIST = 2 ** 26;

/**
 * Reads a backup, one project after the other.
 *
 * @param take  is given each; the next waits for it
 * @param report  told the part done, 0 to 1
 * @returns what could not be read, for the artist
 * @throws FileError when it is no backup, or of a later version
 */
export async function readBackup(
  file: Blob,
  fileName: string,
  take: (project: BackedUp<Project>) => Promise<void>,
  report: (fraction: number) => void = () => undefined,
): Promise<readonly string[]> {
  const fail = (problem: string, remedy = 'Nothing on the Rack has changed.'): never => {
    throw new FileError(fileName, problem, remedy);
  };
  const zip = new ZipReader(new BlobReader(file), { useWebWorkers: false, checkSignature: true });
  const entries = new Map<string, FileEntry>();
  try {
    for (const entry of await zip.getEntries())
      if (!entry.directory) entries.set(entry.filename, entry as FileEntry);
  } catch {
    fail('this is not a backup of the Rack, or only part of one.');
  }
  /** The bytes of an entry; they are stored as they are, so that none is larger than the file. */
  const bytesOf = async (name: string, most: number): Promise<Uint8Array | undefined> => {
    const entry = entries.get(name);
    if (!entry || entry.uncompressedSize > most || entry.compressionMethod !== 0) return undefined;
    return entry.getData(new Uint8ArrayWriter()).catch(() => undefined);
  };
  const text = await bytesOf('rack.json', Math.min(LONGEST_LIST, file.size));
  let list: { readonly version: number; readonly projects: readonly Listed[] } | undefined;
  try {
    list = text && JSON.parse(new TextDecoder().decode(text));
  } catch {
    list = undefined;
  }
  if (!list) return fail('this is not a backup of the Rack, or only part of one.');
  if (list.version > VERSION)
    fail('this backup was written by a later Blunt Hem.', 'Drop it there; the file is as it was.');
  if (listShape.validate(list, { convert: false }).error) fail('the list of projects in it is damaged.');
  const losses: string[] = [];
  for (const [i, { file: name, picture, view, facts }] of list.projects.entries()) {
    const part = (fraction: number) => report((i + fraction) / list.projects.length);
    const bytes = await bytesOf(name, file.size);
    if (!bytes) {
      losses.push(`“${short(facts.name)}” is damaged in the backup and was left out.`);
      continue;
    }
    try {
      const { project, loss } = await readProject(bytes, short(facts.name), part);
      if (loss) losses.push(loss);
      const image = picture && (await bytesOf(picture, file.size));
      await take({
        facts,
        content: project,
        view,
        picture: image ? new Blob([image as Uint8Array<ArrayBuffer>], { type: 'image/png' }) : undefined,
      });
    } catch (error) {
      if (!(error instanceof FileError)) throw error;
      losses.push(`“${short(facts.name)}” was left out: ${error.message}`);
    }
    part(1);
  }
  await zip.close();
  return losses;
}

const short = (name: string): string => (name.length > 60 ? `${name.slice(0, 59)}…` : name);
