import { parseArgs } from 'node:util';
import { METHODS, type Method } from '@blunt-hem/core/unfold/unfold';
import Joi from 'joi';

/** The call itself is wrong; the program ends with 1. */
export class CallError extends Error {}

export const USAGE = `Usage:
  hem info IN
  hem unfold IN --seams SEAMS.json --out OUT.obj|.glb [--method conformal|angle-based] [--pins PINS.json]
             [--smoothed] [--relax] [--balance 0.5] [--seconds N] [--pack] [--size 2048] [--padding 8]
  hem measure IN
IN is an OBJ or GLB file. SEAMS.json is {"edges": [[a, b], …]}, zero-based vertices as in the file.
PINS.json is {"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}; where a seam
runs through, add "face" for the side that is meant.
--balance runs from 0, angles alone, to 1, area above all. --smoothed flattens the subdivision surface.`;

export interface FileCall {
  readonly command: 'info' | 'measure';
  readonly input: string;
}

export interface UnfoldCall extends UnfoldOptions {
  readonly command: 'unfold';
  readonly input: string;
}

export type Call = FileCall | UnfoldCall;

export interface UnfoldOptions {
  readonly seams: string;
  readonly out: string;
  readonly method: Method;
  readonly pins?: string;
  readonly smoothed: boolean;
  readonly relax: boolean;
  readonly balance: number;
  readonly seconds?: number;
  readonly pack: boolean;
  readonly size: number;
  readonly padding: number;
}

const unfoldSchema = Joi.object<UnfoldOptions>({
  seams: Joi.string().required(),
  out: Joi.string()
    .pattern(/\.(obj|glb)$/i, 'a name ending in .obj or .glb')
    .required(),
  method: Joi.string()
    .valid(...METHODS)
    .default('conformal'),
  pins: Joi.string(),
  smoothed: Joi.boolean().default(false),
  relax: Joi.boolean().default(false),
  balance: Joi.number().min(0).max(1).default(0.5),
  seconds: Joi.number().positive(),
  pack: Joi.boolean().default(false),
  size: Joi.number().integer().min(16).max(16_384).default(2048),
  padding: Joi.number().min(0).max(512).default(8),
});

/** @throws CallError with a sentence */
export function parseCall(words: readonly string[]): Call {
  const [command, ...rest] = words;
  if (command !== 'info' && command !== 'unfold' && command !== 'measure') {
    throw new CallError(command ? `There is no command “${command}”.` : 'Say what to do.');
  }
  const { values, positionals } = parsed(rest);
  if (positionals.length !== 1) throw new CallError(`hem ${command} takes one model file.`);
  const [input] = positionals;
  if (command !== 'unfold') {
    if (Object.keys(values).length > 0) throw new CallError(`hem ${command} takes no options.`);
    return { command, input };
  }
  const { value, error } = unfoldSchema.validate(values, { errors: { wrap: { label: false } } });
  if (error) throw new CallError(`hem unfold: ${error.message}.`);
  return { command, input, ...value };
}

function parsed(words: readonly string[]) {
  try {
    return parseArgs({
      args: [...words],
      allowPositionals: true,
      options: {
        seams: { type: 'string' },
        out: { type: 'string' },
        method: { type: 'string' },
        pins: { type: 'string' },
        smoothed: { type: 'boolean' },
        relax: { type: 'boolean' },
        balance: { type: 'string' },
        seconds: { type: 'string' },
        pack: { type: 'boolean' },
        size: { type: 'string' },
        padding: { type: 'string' },
      },
    });
  } catch (error) {
    throw new CallError((error as Error).message);
  }
}
