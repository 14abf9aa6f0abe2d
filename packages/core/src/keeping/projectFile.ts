import { strFromU8, strToU8, type ZipOptions, zipSync } from 'fflate';
import Joi from 'joi';
import type { NumberArray } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { History, KeptAct } from '../document/history.ts';
import { upgradedAct, upgradedIfDocument } from '../document/upgrade.ts';
import { FileError } from '../errors.ts';
import type { Trial } from '../trials/trial.ts';
import { bytesOf, type Checksum, checksums } from './checksum.ts';
import { ARRAY_KINDS, type ArrayNote, isWhole, noteBytes, pack, repacked, unpack } from './packed.ts';
import { salvaged } from './salvage.ts';
import { unsoundness } from './soundDocument.ts';
import { checkedAct, checkedPatch } from './soundPatch.ts';
import { soundTrials } from './soundTrial.ts';
import { unzipBounded } from './unzipBounded.ts';
import { walkActs } from './walkActs.ts';

/** A project as it is handed on: the document as it is now, and how it came to be. */
export interface Project {
  /** Of any length. */
  readonly name: string;
  readonly document: HemDocument;
  readonly history: History<KeptAct>;
  readonly trials?: readonly Trial[];
}

const FORMAT = 'blunt-hem-project';
/**
 * 1, 2: see `document/upgrade.ts`; 3: arrays of UVs once a vertex, changes of the mesh as what differs; 4: lengths and checksums of
 * everything; 5: places kept, the way up; 6: patches; 7: methods,
 * smoothed faces, pins and stays; 8: trials and grain lines.
 */
const VERSION = 8;

const SHORT = 1024;

/** Most bytes that a file may unpack to, for each byte of its own and at least: real projects take up to about fifteen. */
const MOST_PER_BYTE = 30;
const ALWAYS_ALLOWED = 2 ** 22;

/**
 * Packs a project into one zip: `project.json` with its checksum in `project.sum`, and each array of numbers as a file of its own,
 * `arrays/0.bin` and so on, little-endian.
 */
export async function writeProject({ name, document, history, trials = [] }: Project): Promise<Uint8Array> {
  const { text, checksum, arrays } = pack(
    { format: FORMAT, version: VERSION, name, document, history, trials },
    await checksums(),
  );
  const files = arrays.map((array, i) => [arrayFile(i), inZip(bytesOf(array))] as const);
  return zipSync({
    'project.sum': inZip(strToU8(checksum)),
    'project.json': inZip(strToU8(text)),
    ...Object.fromEntries(files),
  });
}

/** Compressing what is short costs more than it saves. */
const inZip = (bytes: Uint8Array): [Uint8Array, ZipOptions] => [
  bytes,
  { level: bytes.length < SHORT ? 0 : 3 },
];

const arrayFile = (i: number) => `arrays/${i}.bin`;

/** A project that was read from a file. */
export interface ReadProject {
  readonly project: Project;
  /** What of the file could not be used, for the artist; undefined when all of it is whole. */
  readonly loss?: string;
}

const manifest = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.number().integer().min(1).required(),
  name: Joi.string().allow('').required(),
  document: Joi.object().required(),
  history: Joi.object({
    acts: Joi.array().items(Joi.object()).required(),
    done: Joi.number().integer().min(0).required(),
  }).required(),
  trials: Joi.any(),
}).unknown(false);

interface Manifest {
  readonly version: number;
  readonly name: string;
  readonly document: unknown;
  readonly history: { readonly acts: readonly KeptAct[]; readonly done: number };
  readonly trials?: unknown;
}

/**
 * Reads a project file and believes nothing of it: the document has to be sound, and every act has to fit it. Of a damaged one, what
 * is whole is opened, and the loss told.
 *
 * @param report  told the part done, 0 to 1
 * @throws FileError when the file is no project, of a later version, or holds nothing whole
 */
export async function readProject(
  bytes: Uint8Array,
  fileName: string,
  report: (fraction: number) => void = () => undefined,
): Promise<ReadProject> {
  const fail = (problem: string, remedy = 'Export the project again from Blunt Hem.'): never => {
    throw new FileError(fileName, problem, remedy);
  };
  const checksum = await checksums();
  let files = new Map<string, Uint8Array>();
  try {
    files = unzipBounded(bytes, Math.max(ALWAYS_ALLOWED, MOST_PER_BYTE * bytes.length), (part) =>
      report(part / 2),
    );
  } catch {
    fail('this is not a project file, or only part of one.');
  }
  const text = files.get('project.json');
  if (!text) return fail('this is not a project file, or only part of one.');
  const kept = attempt(() => contents(strFromU8(text), files, checksum));
  const version = kept?.version;
  if (version && version > VERSION)
    return fail(
      `it was written by a later Blunt Hem (its version is ${version}, this one knows ${VERSION}).`,
      'Open it there; the file is as it was.',
    );
  if (!kept || manifest.validate(kept, { convert: false }).error) return fail('the project is damaged.');
  return (await wholeOf(kept, fileName, report)) ?? fail('the model in it is damaged.');
}

/** What the text says, with its arrays put in; those that are damaged are undefined. */
function contents(text: string, files: ReadonlyMap<string, Uint8Array>, checksum: Checksum): Manifest {
  const sum = files.get('project.sum');
  if (!sum) return JSON.parse(text, (_, value) => arrayOfOld(value, files));
  const { notes, value } = unpack(text, strFromU8(sum), checksum);
  const arrays = notes.map((note, i) => arrayFrom(note, files.get(arrayFile(i)), checksum));
  return repacked(value, arrays) as Manifest;
}

function arrayFrom(
  note: ArrayNote,
  bytes: Uint8Array | undefined,
  checksum: Checksum,
): NumberArray | undefined {
  if (bytes?.length !== noteBytes(note)) return undefined;
  const array = new ARRAY_KINDS[note.kind](bytes.buffer as ArrayBuffer, 0, note.length);
  return isWhole(array, note, checksum) ? array : undefined;
}

/** An array as versions 1 to 3 named it: by its file, and without its length. */
function arrayOfOld(value: unknown, files: ReadonlyMap<string, Uint8Array>): unknown {
  if (typeof value !== 'object' || value === null || !('array' in value) || !('file' in value)) return value;
  const kind = ARRAY_KINDS[value.array as ArrayNote['kind']];
  const bytes = files.get(value.file as string);
  return bytes && attempt(() => new kind(bytes.buffer as ArrayBuffer));
}

async function wholeOf(
  { name, document: candidate, history, trials: kept }: Manifest,
  fileName: string,
  report: (fraction: number) => void,
): Promise<ReadProject | undefined> {
  const upgraded = upgradedIfDocument(candidate);
  const { trials, lost: lostTrials } = soundTrials(kept);
  if (unsoundness(upgraded)) {
    const document = salvaged(upgraded);
    if (!document) return undefined;
    const loss = `${fileName} is damaged. Its model was read, with what is whole of its seams and UVs; what was done before cannot be taken back.`;
    return { project: { name, document, history: { acts: [], done: 0 }, trials }, loss };
  }
  const document = upgraded as HemDocument;
  // Where the count is wrong, nothing tells which act led here.
  const acts = history.done <= history.acts.length ? history.acts : [];
  const done = Math.min(history.done, acts.length);
  const patchOf = (i: number) => {
    report(0.5 + (0.5 * Math.abs(done - i)) / acts.length);
    checkedAct(acts[i]);
    return checkedPatch(attempt(() => upgradedAct(acts[i]).patch));
  };
  const first = (await walkActs(document, done, 0, patchOf)).reached;
  const last = (await walkActs(document, done, acts.length, patchOf)).reached;
  const project: Project = {
    name,
    document,
    history: { acts: acts.slice(first, last).map(upgradedAct), done: done - first },
    trials,
  };
  const lost = history.acts.length - (last - first);
  if (lost === 0 && done === history.done) {
    if (lostTrials === 0) return { project };
    const some = lostTrials === 1 ? 'one of its trials is' : `${lostTrials} of its trials are`;
    return { project, loss: `${fileName} is damaged: ${some} lost. All the rest is whole.` };
  }
  const acted = lost === 1 ? 'one act' : `${lost} acts`;
  return {
    project,
    loss: `${fileName} is damaged. Its model, seams and UVs are whole; ${acted} can no longer be taken back or done again.`,
  };
}

function attempt<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch {
    return undefined;
  }
}
