import Joi from 'joi';

/** How much is put up with in the flat of one model. */
export interface Limits {
  /** Most L2 stretch of a shell, and most of its single places, as a factor of length. */
  readonly stretch: number;
  readonly worst: number;
  /** Most area stretch of a shell on average, as a factor. */
  readonly area: number;
  /** Most angular deformation of a shell on average, degrees. */
  readonly angle: number;
  /** Most that the texture scale of a shell may differ from that of the rest, as a factor. */
  readonly density: number;
}

/** Limits to begin with: as usual, for a careful painter, and for a quick one. Judgements of ours; see docs/measures.md. */
export const LIMIT_PRESETS = {
  usual: { stretch: 1.25, worst: 6, area: 1.5, angle: 20, density: 1.25 },
  clean: { stretch: 1.1, worst: 3, area: 1.25, angle: 12, density: 1.1 },
  rough: { stretch: 1.5, worst: 12, area: 2, angle: 30, density: 2 },
} as const satisfies Record<string, Limits>;
export type LimitPreset = keyof typeof LIMIT_PRESETS;

/** What limits may be. */
export const limitsShape = Joi.object({
  stretch: Joi.number().min(1).max(100).required(),
  worst: Joi.number().min(1).max(1000).required(),
  area: Joi.number().min(1).max(100).required(),
  angle: Joi.number().min(0).max(180).required(),
  density: Joi.number().min(1).max(100).required(),
}).required();
