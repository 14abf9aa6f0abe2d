import { STAGES } from '@blunt-hem/core/operations/operation';
import Joi from 'joi';
import type { ProjectRow } from './database.ts';
import { CHECKER_UNITS, type KEPT_LOOKS, SCALES_AGAINST } from './looks.ts';

/** Rows as they are read back: of one that is garbled, what can be told of it, and that it is. */

const time = Joi.number().min(0);
const count = Joi.number().integer().min(0);
const FIELDS: Record<keyof ProjectRow, Joi.Schema> = {
  id: Joi.string().required(),
  name: Joi.string().allow('').required(),
  created: time.required(),
  updated: time.required(),
  firstAct: count, // counted only since version 2
  done: count.required(),
  faces: count.required(),
  shells: count.required(),
  picture: Joi.object().instance(Blob),
  deleted: time,
  damage: Joi.string(),
  from: Joi.string(),
};

const STAND_INS: Partial<ProjectRow> = {
  name: 'Project without a name',
  created: 0,
  updated: 0,
  faces: 0,
  shells: 0,
};

export type KeptRow = Omit<ProjectRow, 'firstAct' | 'done'> & Partial<Pick<ProjectRow, 'firstAct' | 'done'>>;

/** @returns no row when there is none, or not even its id */
export function soundRow(candidate: unknown): { readonly row?: KeptRow; readonly problem?: string } {
  if (typeof candidate !== 'object' || candidate === null) return {};
  const kept = candidate as Record<string, unknown>;
  if (typeof kept.id !== 'string') return {};
  const row: Record<string, unknown> = {};
  let problem: string | undefined;
  for (const field of Object.keys(FIELDS) as (keyof ProjectRow)[]) {
    const { error } = FIELDS[field].validate(kept[field], { convert: false });
    const value = error ? STAND_INS[field] : kept[field];
    if (error) problem = 'What the Rack knows of this project is damaged in the store.';
    if (value !== undefined) row[field] = value;
  }
  return { row: row as unknown as KeptRow, problem };
}

const number = Joi.number().required();
const point = Joi.array().items(number).length(3).required();
/** What of the view is kept, each as what it may be. */
const LOOKS: Readonly<Record<(typeof KEPT_LOOKS)[number], Joi.Schema>> = {
  stage: Joi.valid(...STAGES),
  overlay: Joi.string(),
  checker: Joi.boolean(),
  checkerKind: Joi.string(),
  checkerStrength: Joi.number().min(0).max(1),
  checkerUnit: Joi.valid(...CHECKER_UNITS),
  squareTexels: Joi.number().min(1).max(4096),
  squareUnits: Joi.number().greater(0),
  repeats: Joi.number().integer().min(1).max(4096),
  visibleOnly: Joi.boolean(),
  parallel: Joi.boolean(),
  split: Joi.number().min(0).max(100),
  notches: Joi.boolean(),
  ellipsesOn: Joi.boolean(),
  seamWeight: Joi.number().min(0.5).max(3),
  scaleAgainst: Joi.valid(...SCALES_AGAINST),
  chosenScale: Joi.number().greater(0),
  detailsWidth: Joi.number().min(200).max(4000),
};
const viewShape = Joi.object({
  ...LOOKS,
  cameras: Joi.object({
    model: Joi.object({ position: point, target: point }).required(),
    board: Joi.object({ u: number, v: number, scale: number.greater(0) }).required(),
  }).required(),
});

/** How the Bench was left; undefined when that is garbled: then it is as at the first opening. */
export const soundView = (candidate: unknown): unknown =>
  viewShape.validate(candidate, { convert: false }).error ? undefined : candidate;
