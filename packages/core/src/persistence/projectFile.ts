import { strFromU8, strToU8, type ZipOptions, zipSync } from 'fflate';
import Joi from 'joi';
import type { NumberArray } from '../document/arrayDelta.ts';
import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Act, History, KeptAct } from '../document/history.ts';
import { upgradedDelta, upgradedIfDocument } from '../document/upgrade.ts';
import { FileError, HemError } from '../errors.ts';
import type { Trial } from '../trials/trial.ts';
import { attempt } from './attempt.ts';
import { bytesOf, type Checksum, checksums } from './checksum.ts';
import { ARRAY_KINDS, type ArrayNote, noteBytes, pack, type Reading, readingOf, unpack } from './packed.ts';
import { recoverDocument } from './recover.ts';
import { unzipBounded } from './unzipBounded.ts';
import { validateAct, validateDelta } from './validateDelta.ts';
import { findFault } from './validateDocument.ts';
import { validateTrials } from './validateTrial.ts';
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
 * smoothed faces, pins and stays; 8: trials and grain lines; 9: locked shells; 10: UV sets; 11: tiles; 12: materials with images; 13: shells kept together; 14: grain lines of either direction.
 */
const VERSION = 15;

const SHORT = 1024;

/**
 * Most bytes that a project may take unpacked: what the patches of a project may take, and as much again for everything else. How well
 * it packs says nothing: three UV sets of zeros pack to a thousandth. What bounds the arrays is what the text declares of them.
 */
export const MOST_UNPACKED = 2 ** 31;

/**
 * Packs a project into one zip: `project.json` with its checksum in `project.sum`, and each array of numbers as a file of its own,
 * `arrays/0.bin` and so on, little-endian.
 *
 * @throws HemError when it would take more, unpacked, than `readProject` takes in
 */
export const writeProject = (project: Project, most = MOST_UNPACKED): Promise<Uint8Array> =>
  writeManifest(manifestOf(project), most);

/** A project as files hold it. */
export const manifestOf = ({ name, document, history, trials = [] }: Project): Manifest => ({
  format: FORMAT,
  version: VERSION,
  name,
  document,
  history: { acts: history.acts.map(({ delta, ...act }) => ({ ...act, patch: delta })), done: history.done },
  trials,
});

/** Packs what a file holds: see `writeProject`. */
export async function writeManifest(manifest: Manifest, most = MOST_UNPACKED): Promise<Uint8Array> {
  const { name } = manifest;
  const { text, checksum, arrays } = pack(manifest, await checksums());
  const size = arrays.reduce((sum, { byteLength }) => sum + byteLength, 3 * text.length);
  if (size > most)
    throw new HemError(
      'too-large',
      `“${name.slice(0, 60)}” takes ${Math.ceil(size / 1e6)} MB, and a project file holds ${Math.floor(most / 1e6)} MB at most. Nothing was written. Export its model, or take acts back.`,
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

const manifestShape = Joi.object({
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

/** An act as files hold it. */
interface StoredAct extends Act {
  readonly patch: Delta;
}

interface Manifest {
  readonly format: string;
  readonly version: number;
  readonly name: string;
  readonly document: unknown;
  readonly history: { readonly acts: readonly StoredAct[]; readonly done: number };
  readonly trials?: unknown;
}

/**
 * Writes a project and reads it back as it will be read one day: what cannot be read again is not called written.
 *
 * @throws HemError when what was written cannot be read back whole
 */
export async function writeProjectChecked(project: Project, most = MOST_UNPACKED): Promise<Uint8Array> {
  const bytes = await writeProject(project, most);
  const back = await readProject(bytes, 'The file', undefined, most).catch((error: Error) => ({
    loss: error.message,
  }));
  if (back.loss !== undefined)
    throw new HemError(
      'not-read-back',
      `The project file was written, but could not be read back, so it is not handed out. ${back.loss} Export the model itself as OBJ or GLB.`,
    );
  return bytes;
}

/**
 * Reads a project file and believes nothing of it: the document has to be sound, and every act has to fit it. Of a damaged one, what
 * is whole is opened, and the loss told.
 *
 * @param report  told the part done, 0 to 1
 * @param most  bytes that it may take unpacked
 * @throws FileError when the file is no project, of a later version, or holds nothing whole
 */
export async function readProject(
  bytes: Uint8Array,
  fileName: string,
  report: (fraction: number) => void = () => undefined,
  most = MOST_UNPACKED,
): Promise<ReadProject> {
  const fail = (problem: string, remedy = 'Export the project again from Blunt Hem.'): never => {
    throw new FileError(fileName, problem, remedy);
  };
  const checksum = await checksums();
  let files = new Map<string, Uint8Array>();
  try {
    files = unzipBounded(bytes, most, (part) => report(part / 2), declaredSizes(checksum));
  } catch {
    fail('this is not a project file, or only part of one.');
  }
  const text = files.get('project.json');
  if (!text) return fail('this is not a project file, or only part of one.');
  const kept = attempt(() => contents(strFromU8(text), files, checksum));
  const version = (kept?.unverified as Partial<Manifest> | undefined)?.version;
  if (version && version > VERSION)
    return fail(
      `it was written by a later Blunt Hem (its version is ${version}, this one knows ${VERSION}).`,
      'Open it there; the file is as it was.',
    );
  if (!kept || manifestShape.validate(kept.unverified, { convert: false }).error)
    return fail('the project is damaged.');
  return (await wholeOf(kept, fileName, report)) ?? fail('the model in it is damaged.');
}

/** How many bytes each file of the zip may have, once the text has told of the arrays. */
function declaredSizes(checksum: Checksum) {
  let notes: readonly ArrayNote[] | undefined;
  return (name: string, whole: ReadonlyMap<string, Uint8Array>): number => {
    if (name === 'project.json' || name === 'project.sum') return Infinity;
    const text = whole.get('project.json');
    // The text comes first. Files of version 1 to 3 say nothing of the lengths of their arrays.
    if (!text || !whole.has('project.sum')) return Infinity;
    notes ??= attempt(() => unpack(strFromU8(text), '', checksum).notes) ?? [];
    const note = notes[Number(/^arrays\/(\d+)\.bin$/.exec(name)?.[1])];
    return note ? noteBytes(note) : 0;
  };
}

/** What the text says, with its arrays put in. */
function contents(text: string, files: ReadonlyMap<string, Uint8Array>, checksum: Checksum): Reading {
  const sum = files.get('project.sum');
  if (!sum) {
    const value: unknown = JSON.parse(text, (_, item) => arrayOfOld(item, files));
    return { value, unverified: value, checksumDiffers: false, whole: true };
  }
  const unpacking = unpack(text, strFromU8(sum), checksum);
  const arrays = unpacking.notes.map((note, i) => arrayFrom(note, files.get(arrayFile(i))));
  return readingOf(unpacking, arrays, checksum);
}

function arrayFrom(note: ArrayNote, bytes: Uint8Array | undefined): NumberArray | undefined {
  if (bytes?.length !== noteBytes(note)) return undefined;
  return new ARRAY_KINDS[note.kind](bytes.buffer as ArrayBuffer, 0, note.length);
}

/** An array as versions 1 to 3 named it: by its file, and without its length. */
function arrayOfOld(value: unknown, files: ReadonlyMap<string, Uint8Array>): unknown {
  if (typeof value !== 'object' || value === null || !('array' in value) || !('file' in value)) return value;
  const kind = ARRAY_KINDS[value.array as ArrayNote['kind']];
  const bytes = files.get(value.file as string);
  return bytes && attempt(() => new kind(bytes.buffer as ArrayBuffer));
}

/** Told where a checksum differs and nothing else does. */
const notAsWritten = (fileName: string) =>
  `${fileName} is not as it was written: a checksum differs. All of it was read; look it over before you go on.`;

async function wholeOf(
  { value, unverified, checksumDiffers }: Reading,
  fileName: string,
  report: (fraction: number) => void,
): Promise<ReadProject | undefined> {
  // Where the text itself may say what nobody wrote, so may its checksums of arrays.
  const {
    name,
    document: candidate,
    history,
    trials: kept,
  } = (checksumDiffers ? unverified : value) as Manifest;
  const upgraded = upgradedIfDocument(candidate);
  const { trials, lost: lostTrials } = validateTrials(kept);
  if (findFault(upgraded)) {
    const asRead = upgradedIfDocument((unverified as Manifest).document);
    const document = recoverDocument(upgraded) ?? recoverDocument(asRead);
    if (!document) return undefined;
    const loss = recoverDocument(upgraded)
      ? `${fileName} is damaged. Its model was read, with what is whole of its seams and UVs; what was done before cannot be taken back.`
      : `${fileName} is damaged, its model too: it was read as it stands, and may be bent somewhere. What was done before cannot be taken back.`;
    return { project: { name, document, history: { acts: [], done: 0 }, trials }, loss };
  }
  const document = upgraded as HemDocument;
  // Where the count is wrong, nothing tells which act led here.
  const acts = history.done <= history.acts.length ? history.acts : [];
  const done = Math.min(history.done, acts.length);
  const deltaOf = (i: number) => {
    report(0.5 + (0.5 * Math.abs(done - i)) / acts.length);
    validateAct(acts[i]);
    return validateDelta(attempt(() => upgradedDelta(acts[i].patch)));
  };
  const first = (await walkActs(document, done, 0, deltaOf)).reached;
  const last = (await walkActs(document, done, acts.length, deltaOf)).reached;
  const project: Project = {
    name,
    document,
    history: {
      acts: acts
        .slice(first, last)
        .map(({ patch, ...act }): KeptAct => ({ ...act, delta: upgradedDelta(patch) })),
      done: done - first,
    },
    trials,
  };
  const lost = history.acts.length - (last - first);
  if (lost === 0 && done === history.done) {
    if (lostTrials === 0) return { project, ...(checksumDiffers && { loss: notAsWritten(fileName) }) };
    const some = lostTrials === 1 ? 'one of its trials is' : `${lostTrials} of its trials are`;
    return { project, loss: `${fileName} is damaged: ${some} lost. All the rest is whole.` };
  }
  const acted = lost === 1 ? 'one act' : `${lost} acts`;
  return {
    project,
    loss: `${fileName} is damaged. Its model, seams and UVs are whole; ${acted} can no longer be taken back or done again.`,
  };
}
