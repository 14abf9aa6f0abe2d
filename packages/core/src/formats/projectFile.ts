import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import Joi from 'joi';
import type { HemDocument } from '../document/document.ts';
import { FACE_MARKS, MARK_FIELDS, VALUE_FIELDS } from '../document/fields.ts';
import type { History, KeptAct } from '../document/history.ts';
import { upgradedActs, upgradedDocument } from '../document/upgrade.ts';
import { FileError } from '../errors.ts';

/** A project as it is handed on: the document as it is now, and how it came to be. */
export interface Project {
  readonly name: string;
  readonly document: HemDocument;
  readonly history: History<KeptAct>;
}

const FORMAT = 'blunt-hem-project';
const VERSION = 3;

const each = (fields: readonly string[], schema: Joi.Schema) =>
  Object.fromEntries(fields.map((field) => [field, schema]));

const manifest = Joi.object({
  format: Joi.string().valid(FORMAT).required(),
  version: Joi.number().integer().min(1).max(VERSION).required(),
  name: Joi.string().max(400).required(),
  document: Joi.object({
    model: Joi.object().required(),
    uvSets: Joi.array().min(1).required(),
    ...each(VALUE_FIELDS, Joi.number().integer().min(0).required()),
    ...each(MARK_FIELDS, Joi.object().required()),
  }).required(),
  history: Joi.object({
    acts: Joi.array().required(),
    done: Joi.number().integer().min(0).required(),
  }).required(),
}).unknown(false);

/** Packs a project into one zip: `project.json`, and each array of numbers as a file of its own beside it. */
export function writeProject(project: Project): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  const root = { format: FORMAT, version: VERSION, ...project };
  const text = JSON.stringify(root, (_, value) => {
    if (!ArrayBuffer.isView(value)) return value;
    const file = `arrays/${Object.keys(files).length}.bin`;
    files[file] = new Uint8Array(value.buffer, value.byteOffset, value.byteLength);
    return { array: value.constructor.name, file };
  });
  return zipSync({ 'project.json': strToU8(text), ...files }, { level: 3 });
}

/** @throws FileError when the file is no project, is damaged, or does not fit together */
export function readProject(bytes: Uint8Array, fileName: string): Project {
  const fail = (problem: string): never => {
    throw new FileError(fileName, problem, 'Export the project again from Blunt Hem.');
  };
  let project: Project & { format: string };
  try {
    const files = unzipSync(bytes);
    const kept = JSON.parse(strFromU8(files['project.json']), (_, value) => restored(value, files));
    project = {
      ...kept,
      document: upgradedDocument(kept.document),
      history: { ...kept.history, acts: upgradedActs(kept.history.acts) },
    };
  } catch {
    return fail('this is not a project file, or only part of one.');
  }
  if (manifest.validate(project).error || !fitsTogether(project.document)) fail('the project is damaged.');
  const { name, document, history } = project;
  return { name, document, history };
}

const ARRAYS = { Float64Array, Uint32Array, Int32Array, Uint8Array } as const;

function restored(value: unknown, files: Record<string, Uint8Array>): unknown {
  if (typeof value !== 'object' || value === null || !('array' in value) || !('file' in value)) return value;
  const kind = ARRAYS[value.array as keyof typeof ARRAYS];
  // A copy begins at a multiple of eight bytes, as the array types require.
  return new kind(files[value.file as string].slice().buffer);
}

function fitsTogether(document: HemDocument): boolean {
  const { model, seams, uvSets, currentUv } = document;
  const { mesh } = model;
  const corners = mesh?.cornerVertex?.length;
  const faces = mesh?.faceStart?.length - 1;
  return (
    mesh.positions instanceof Float64Array &&
    mesh.faceStart[faces] === corners &&
    mesh.cornerVertex.every((v) => v < mesh.positions.length / 3) &&
    seams instanceof Uint8Array &&
    FACE_MARKS.every((field) => document[field].length === faces) &&
    currentUv < uvSets.length &&
    uvSets.every(({ uv }) => uv instanceof Float64Array && uv.length === 2 * corners)
  );
}
