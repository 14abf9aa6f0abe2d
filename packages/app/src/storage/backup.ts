import { FileError, HemError } from '@blunt-hem/core/errors';
import { fileNameOf } from '@blunt-hem/core/formats/fileName';
import { attempt } from '@blunt-hem/core/persistence/attempt';
import { type Project, readProject } from '@blunt-hem/core/persistence/projectFile';
import { BlobReader, BlobWriter, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import Joi from 'joi';
import { type BackupEntry, backupEntries } from './backupEntries.ts';
import type { ProjectRow } from './database.ts';
import { soundView } from './rows.ts';

/**
 * The whole Rack as one file: a zip of project files, each as it would be exported by itself, with `rack.json` to tell what is what, and
 * before each project what it tells of that one, so that nothing hangs on the end of the file. A project can be taken out of it with any
 * program that opens zips.
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

const factsShape = Joi.object({
  id: Joi.string().required(),
  name: Joi.string().allow('').required(),
  created: Joi.number().min(0).required(),
  updated: Joi.number().min(0).required(),
  deleted: Joi.number().min(0),
}).required();
const listedShape = Joi.object({
  file: Joi.string().required(),
  picture: Joi.string(),
  view: Joi.any(),
  facts: factsShape,
}).required();
const listShape = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.number().integer().min(1).required(),
  projects: Joi.array().required(),
}).required();

interface Listed {
  readonly file: string;
  readonly picture?: string;
  readonly view?: unknown;
  readonly facts: Facts;
}

/** Ids as we give them; another could be anything. */
const OUR_ID = /^[\w-]{1,100}$/;

/**
 * @param projects  one at a time, so that no two need be in memory; their content is that of a project file
 * @throws HemError when what was written cannot be read back
 */
export async function writeBackup(
  projects: AsyncIterable<BackedUp<Uint8Array>>,
): Promise<{ readonly file: Blob; readonly projects: number }> {
  // Sizes stand before the contents, so that they are known without the directory at the end.
  const zip = new ZipWriter(new BlobWriter('application/zip'), {
    level: 0,
    useWebWorkers: false,
    dataDescriptor: false,
  });
  const addText = (name: string, value: object) =>
    zip.add(name, new BlobReader(new Blob([JSON.stringify(value)])));
  const list: Listed[] = [];
  for await (const { facts, content, picture, view } of projects) {
    const number = String(list.length + 1).padStart(4, '0');
    const file = `projects/${number} ${fileNameOf(facts.name, 'hemproject')}`;
    const image = picture && `pictures/${number}.png`;
    const listed = { file, picture: image, view, facts };
    await addText(`facts/${number}.json`, listed);
    await zip.add(file, new Uint8ArrayReader(content));
    if (image) await zip.add(image, new BlobReader(picture));
    list.push(listed);
  }
  await addText('rack.json', { format: FORMAT, version: VERSION, projects: list });
  const file = await zip.close();
  await checkBackup(file, list);
  return { file, projects: list.length };
}

/** @throws HemError unless everything in a backup can be read back */
async function checkBackup(file: Blob, list: readonly Listed[]): Promise<void> {
  const { entries, close } = await backupEntries(file);
  for (const name of ['rack.json', ...list.flatMap(({ file, picture }) => [file, picture ?? file])]) {
    if (await entries.get(name)?.verified()) continue;
    throw new HemError(
      'not-read-back',
      'The backup was written, but could not be read back, so it was not saved. Try again, or export projects one by one.',
    );
  }
  await close();
}

/** Most bytes that the list of a backup may have. */
const LONGEST_LIST = 2 ** 26;

/**
 * Reads a backup, one project after the other. Of a damaged one, or one that is cut short, what is whole of each project.
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
  const { entries, addUnlisted, close } = await backupEntries(file);
  let listed = await listOf(entries, file, fileName);
  const losses: string[] = [];
  if (listed.pieced || listed.projects.some(({ file }) => !entries.has(file))) {
    if (await addUnlisted()) listed = await listOf(entries, file, fileName);
    losses.push(`${fileName} is damaged, or only part of a backup: this is what is in it.`);
  }
  if (listed.projects.length === 0 && listed.pieced)
    throw new FileError(
      fileName,
      'this is not a backup of the Rack, or only part of one.',
      'Nothing on the Rack has changed.',
    );
  for (const [i, { file: name, picture, view, facts }] of listed.projects.entries()) {
    const part = (fraction: number) => report((i + fraction) / listed.projects.length);
    // What a project file is like inside is found out by its own checksums: it may be mostly whole where the zip round it says it is not.
    const bytes = await entries.get(name)?.unverified();
    if (!bytes) {
      losses.push(`“${short(facts.name)}” is damaged in the backup and was left out.`);
      continue;
    }
    try {
      const { project, loss } = await readProject(bytes, short(facts.name), part);
      if (loss) losses.push(loss);
      const image = picture && (await entries.get(picture)?.verified());
      await take({
        facts: OUR_ID.test(facts.id) ? facts : { ...facts, id: crypto.randomUUID() },
        content: project,
        view: soundView(view),
        picture: image ? new Blob([image as Uint8Array<ArrayBuffer>], { type: 'image/png' }) : undefined,
      });
    } catch (error) {
      if (!(error instanceof FileError)) throw error;
      losses.push(`“${short(facts.name)}” was left out: ${error.message}`);
    }
    part(1);
  }
  await close();
  return losses;
}

/** What is in a backup, by its list, and by what stands before each project where the list has it not. */
async function listOf(
  entries: ReadonlyMap<string, BackupEntry>,
  file: Blob,
  fileName: string,
): Promise<{ readonly projects: readonly Listed[]; readonly pieced: boolean }> {
  const parsed = async (name: string): Promise<unknown> => {
    const entry = entries.get(name);
    const bytes =
      entry && entry.size <= Math.min(LONGEST_LIST, file.size) ? await entry.verified() : undefined;
    return bytes && attempt(() => JSON.parse(new TextDecoder().decode(bytes)));
  };
  const files = [...entries.keys()].filter((name) => /^projects\/.+\.hemproject$/.test(name));
  const list = (await parsed('rack.json')) as { version?: number; projects?: unknown[] } | undefined;
  if (list?.version !== undefined && list.version > VERSION)
    throw new FileError(
      fileName,
      'this backup was written by a later Blunt Hem.',
      'Drop it there; the file is as it was.',
    );
  const sound = list !== undefined && !listShape.validate(list, { convert: false }).error;
  const isListed = (each: unknown): each is Listed => !listedShape.validate(each, { convert: false }).error;
  const projects = sound ? (list.projects ?? []).filter(isListed) : [];
  const known = new Set(projects.map(({ file }) => file));
  for (const name of files) {
    if (known.has(name)) continue;
    const own = await parsed(name.replace(/^projects\/(\d+) .*$/, 'facts/$1.json'));
    projects.push(isListed(own) && own.file === name ? own : { file: name, facts: factsOf(name) });
  }
  return { projects, pieced: !sound || projects.length > known.size || list.projects?.length !== known.size };
}

/** What can be told of a project by the name of its file alone. */
const factsOf = (name: string): Facts => ({
  id: crypto.randomUUID(),
  name: name.replace(/^projects\/\d* ?/, '').replace(/\.hemproject$/, ''),
  created: Date.now(),
  updated: Date.now(),
});

const short = (name: string): string => (name.length > 60 ? `${name.slice(0, 59)}…` : name);
