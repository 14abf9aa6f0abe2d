import Joi from 'joi';
import type { Trial, TrialShell } from '../trials/trial.ts';
import { METHODS } from '../unfold/unfold.ts';

const number = Joi.number().required();
/** Infinite where faces are collapsed; JSON, which knows no infinity, has null for it. */
const boundless = Joi.number().allow(Infinity, null).required();
const count = Joi.number().integer().min(0).required();
const figures = Joi.object({
  l2: boundless,
  linf: boundless,
  angleMean: number,
  areaMean: number,
  flipped: count,
  collapsed: count,
  area: number,
  uvArea: number,
});
const shell = Joi.object({
  faces: count,
  corners: Joi.object().instance(Uint32Array).required(),
  uv: Joi.object().instance(Float64Array).required(),
  method: Joi.valid(...METHODS).required(),
  relaxed: Joi.boolean().required(),
}).custom((shell: TrialShell) => {
  const { corners, uv } = shell;
  if (uv.length !== 2 * corners.length || !uv.every(Number.isFinite)) throw new Error('no places');
  return shell;
});
const schema = Joi.object({
  id: count,
  name: Joi.string().allow('').required(),
  kept: Joi.boolean().required(),
  made: number,
  set: Joi.number().integer().min(0),
  seconds: Joi.number().min(0),
  mesh: count,
  shells: Joi.array().items(shell.required()).required(),
  figures: Joi.array().items(figures).required(),
}).required();

/** A trial as it was read back; undefined when it is not as one should be. */
export function validateTrial(candidate: unknown): Trial | undefined {
  const { error } = schema.validate(candidate, { convert: false });
  const trial = candidate as Trial;
  if (error || trial.shells.length !== trial.figures.length) return undefined;
  return {
    ...trial,
    figures: trial.figures.map((each) => ({ ...each, l2: each.l2 ?? Infinity, linf: each.linf ?? Infinity })),
  };
}

/** Of a list that was read back, what is sound, and how many were not. */
export function validateTrials(candidates: unknown): { readonly trials: Trial[]; readonly lost: number } {
  if (candidates === undefined) return { trials: [], lost: 0 };
  const list = Array.isArray(candidates) ? candidates : [candidates];
  const trials = list.flatMap((each) => validateTrial(each) ?? []);
  return { trials, lost: list.length - trials.length };
}
