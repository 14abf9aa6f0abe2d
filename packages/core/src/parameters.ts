import type Joi from 'joi';

/** One parameter of an operation or a question, told by its schema: for forms, the command line, recipes and docs. */
export interface Parameter {
  readonly name: string;
  /** What it is; empty where its schema does not say. */
  readonly about: string;
  /** Of numbers: “°”, “texels”. */
  readonly unit?: string;
  readonly type: 'number' | 'flag' | 'choice' | 'text' | 'list' | 'object' | 'mixed';
  /** Whether it must be given. */
  readonly needed: boolean;
  /** What it is when it is not given. */
  readonly fallback?: unknown;
  /** Of numbers, both included. */
  readonly least?: number;
  readonly most?: number;
  /** Whether a number must be whole, and whether it must be greater than 0. */
  readonly whole: boolean;
  readonly positive: boolean;
  /** Words that it may be. */
  readonly choices: readonly string[];
}

/** What Joi tells of a schema. */
interface Described {
  readonly type?: string;
  readonly flags?: {
    readonly default?: unknown;
    readonly presence?: string;
    readonly description?: string;
    readonly unit?: string;
    readonly only?: boolean;
  };
  readonly allow?: readonly unknown[];
  readonly rules?: readonly {
    readonly name: string;
    readonly args?: { readonly limit?: number; readonly sign?: string };
  }[];
  readonly keys?: Readonly<Record<string, Described>>;
}

const TYPES: Readonly<Record<string, Parameter['type']>> = {
  number: 'number',
  boolean: 'flag',
  string: 'text',
  array: 'list',
  object: 'object',
};

/** Every parameter of a record, in its order. */
export const parametersOf = (params: Joi.Schema): Parameter[] =>
  Object.entries((params.describe() as Described).keys ?? {}).map(([name, described]) =>
    parameter(name, described),
  );

/**
 * One parameter of a record.
 *
 * @throws Error when it has none of that name
 */
export function parameterOf(params: Joi.Schema, name: string): Parameter {
  const found = parametersOf(params).find((each) => each.name === name);
  if (!found) throw new Error(`There is no parameter “${name}”.`);
  return found;
}

function parameter(name: string, { type = '', flags = {}, allow = [], rules = [] }: Described): Parameter {
  const limit = (rule: string) => rules.find((each) => each.name === rule)?.args?.limit;
  const choices = allow.filter((value) => typeof value === 'string');
  const [least, most] = [limit('min'), limit('max')];
  return {
    name,
    about: flags.description ?? '',
    ...(flags.unit !== undefined && { unit: flags.unit }),
    type: flags.only && choices.length > 0 ? 'choice' : (TYPES[type] ?? 'mixed'),
    needed: flags.presence === 'required',
    ...('default' in flags && { fallback: flags.default }),
    ...(type === 'number' && least !== undefined && { least }),
    ...(type === 'number' && most !== undefined && { most }),
    whole: rules.some((rule) => rule.name === 'integer'),
    positive: rules.some((rule) => rule.name === 'sign'),
    choices,
  };
}
