import Joi from 'joi';

/** Lists of edges, shells or parts by number. */
export const indices = Joi.array().items(Joi.number().integer().min(0)).min(1).required();

/** Which shells: all, those cut since they were unfolded, or these. */
export const whichShells = Joi.alternatives(Joi.string().valid('all', 'stale'), indices).default('all');
export type WhichShells = 'all' | 'stale' | readonly number[];

/** The surface that is flattened: the model as it is, or as it renders when smoothed. */
export const surfaceSchema = Joi.string().valid('cage', 'smoothed').default('cage');
