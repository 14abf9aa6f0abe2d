import { parseArgs } from 'node:util';
import { toleranceSchema } from '@blunt-hem/core/operations/repair';
import { METHODS, type Method } from '@blunt-hem/core/unfold/unfold';
import Joi from 'joi';

/** The call itself is wrong; the program ends with 1. */
export class CallError extends Error {}

export const USAGE = `Usage:
  hem info IN
  hem unfold IN --seams SEAMS.json --out OUT.obj|.glb [--method conformal|angle-based] [--pins PINS.json]
             [--smoothed] [--relax] [--balance 0.5] [--seconds N] [--pack] [--size 2048] [--padding 8]
  hem measure IN
  hem check IN [--tolerance 0.01]
  hem repair IN --safe --out OUT.obj|.glb [--tolerance 0.01]
IN is an OBJ, glTF, GLB, PLY or STL file. SEAMS.json is {"edges": [[a, b], …]}, zero-based vertices as in the file.
PINS.json is {"pins": [{"vertex": a, "uv": [u, v]}, …], "stays": [{"vertices": [a, b, …]}, …]}; where a seam
runs through, add "face" for the side that is meant.
--tolerance is the distance at which points count as one, as a part of the mean length of border edges.
--balance runs from 0, angles alone, to 1, area above all. --smoothed flattens the subdivision surface.`;

export interface FileCall {
  readonly command: 'info' | 'measure';
  readonly input: string;
}

export interface UnfoldCall extends UnfoldOptions {
  readonly command: 'unfold';
  readonly input: string;
}

export interface CheckCall {
  readonly command: 'check';
  readonly input: string;
  readonly tolerance: number;
}

export interface RepairCall {
  readonly command: 'repair';
  readonly input: string;
  readonly out: string;
  readonly tolerance: number;
}

export type Call = FileCall | UnfoldCall | CheckCall | RepairCall;

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

const out = Joi.string()
  .pattern(/\.(obj|glb)$/i, 'a name ending in .obj or .glb')
  .required();

const unfoldSchema = Joi.object<UnfoldOptions>({
  seams: Joi.string().required(),
  out,
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

const SCHEMAS: Record<Call['command'], Joi.ObjectSchema> = {
  info: Joi.object({}),
  measure: Joi.object({}),
  unfold: unfoldSchema,
  check: Joi.object({ tolerance: toleranceSchema }),
  repair: Joi.object({
    // Said aloud, so that nothing else is ever repaired unseen.
    safe: Joi.boolean().valid(true).required(),
    out,
    tolerance: toleranceSchema,
  }),
};

const isCommand = (word: string | undefined): word is Call['command'] =>
  word !== undefined && Object.hasOwn(SCHEMAS, word);

/** @throws CallError with a sentence */
export function parseCall(words: readonly string[]): Call {
  const [command, ...rest] = words;
  if (!isCommand(command))
    throw new CallError(command ? `There is no command “${command}”.` : 'Say what to do.');
  const { values, positionals } = parsed(rest);
  if (positionals.length !== 1) throw new CallError(`hem ${command} takes one model file.`);
  const [input] = positionals;
  const { value, error } = SCHEMAS[command].validate(values, { errors: { wrap: { label: false } } });
  if (error) throw new CallError(`hem ${command}: ${error.message}.`);
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
        tolerance: { type: 'string' },
        safe: { type: 'boolean' },
      },
    });
  } catch (error) {
    throw new CallError((error as Error).message);
  }
}
