import Joi from 'joi';

/**
 * Parameters as one thing: the Joi schema that checks them at run time carries the TypeScript type of what it lets through, so that
 * the two cannot drift apart. `Out` is what `run` receives, defaults filled in; `In` is what a caller writes.
 */
export type Param<Out, In = Out> = Joi.Schema & { readonly [TYPES]?: readonly [out: Out, into: In] };
declare const TYPES: unique symbol;

/** What a schema lets through, defaults filled in. */
export type Taken<P> = P extends Param<infer Out, infer _> ? Out : never;
/** What a caller writes; what has a default may be left out. */
export type Given<P> = P extends Param<infer _, infer In> ? In : never;

// biome-ignore lint/suspicious/noExplicitAny: any parameter, whatever its types
type AnyParam = Param<any, any>;
type Shape = Readonly<Record<string, AnyParam>>;
type Flat<T> = { readonly [K in keyof T]: T[K] };
type OptionalKeys<T> = { [K in keyof T]-?: undefined extends T[K] ? K : never }[keyof T];
/** Fields that may be undefined may also be left out. */
type Loose<T> = Flat<Omit<T, OptionalKeys<T>> & { readonly [K in OptionalKeys<T>]?: T[K] }>;
type TakenOf<S extends Shape> = Loose<{ [K in keyof S]: Taken<S[K]> }>;
type GivenOf<S extends Shape> = Loose<{ [K in keyof S]: Given<S[K]> }>;

/** An object of these fields and no others. */
export const record = <S extends Shape>(fields: S): Param<TakenOf<S>, GivenOf<S>> & Joi.ObjectSchema =>
  Joi.object(fields);

export const whole = (min = 0, max?: number): Param<number> => {
  const schema = Joi.number().integer().min(min);
  return (max === undefined ? schema : schema.max(max)).required();
};
export const number = (min?: number, max?: number): Param<number> => {
  let schema = Joi.number();
  if (min !== undefined) schema = schema.min(min);
  if (max !== undefined) schema = schema.max(max);
  return schema.required();
};
export const positive = (): Param<number> => Joi.number().positive().required();
export const flag = (): Param<boolean> => Joi.boolean().required();
/** Words an artist types, without spaces round them. */
export const words = (longest: number): Param<string> => Joi.string().trim().max(longest).required();
export const choice = <const T extends string>(...values: readonly T[]): Param<T> =>
  Joi.string()
    .valid(...values)
    .required();
export const list = <Out, In>(
  item: Param<Out, In>,
  { min = 0, unique = false } = {},
): Param<readonly Out[], readonly In[]> => {
  const schema = Joi.array().items(item).min(min).required();
  return unique ? schema.unique() : schema;
};
/** So many numbers. */
export const tuple = <const N extends number>(length: N): Param<Tuple<N>> =>
  Joi.array().items(Joi.number().required()).length(length).required();
type Tuple<N extends number, T extends readonly number[] = readonly []> = T['length'] extends N
  ? T
  : Tuple<N, readonly [...T, number]>;

/**
 * Says what a parameter is, for whoever is asked for it: forms, the command line, recipes and docs read it here.
 *
 * @param text  begins small, no full stop
 * @param unit  of numbers: '°', 'texels'
 */
export const about = <Out, In>(text: string, param: Param<Out, In>, unit?: string): Param<Out, In> => {
  const described = param.description(text);
  return unit === undefined ? described : described.unit(unit);
};

export const optional = <Out, In>(param: Param<Out, In>): Param<Out | undefined, In | undefined> =>
  param.optional();
export const otherwise = <Out, In>(param: Param<Out, In>, value: Out): Param<Out, In | undefined> =>
  param.optional().default(value as never);

/** Lists of edges, faces or parts by number, checked in one go: there may be hundreds of thousands. */
const numbered = (min: number): Param<readonly number[]> =>
  Joi.array()
    .min(min)
    .custom((value: readonly unknown[], helpers) =>
      value.every((i) => Number.isInteger(i) && (i as number) >= 0) ? value : helpers.error('array.indices'),
    )
    .messages({ 'array.indices': '{{#label}} must hold whole numbers from 0 on' })
    .required();
/** At least one. */
export const indices = numbered(1);
/** Numbers in one run, checked in one go: there may be millions. */
export const numbers: Param<readonly number[]> = Joi.array()
  .custom((value: readonly unknown[], helpers) =>
    value.every(Number.isFinite) ? value : helpers.error('array.numbers'),
  )
  .messages({ 'array.numbers': '{{#label}} must hold numbers' })
  .required();
/** Any number of them, none as well. */
export const indicesOrNone = numbered(0);

/**
 * Which shells: all, those cut or sewn since they were unfolded, or those that these faces are of. A shell is named by any of its
 * faces, never by its number: numbers change with every cut.
 */
export type WhichShells = 'all' | 'stale' | readonly number[];
const which: Param<WhichShells> = Joi.alternatives(Joi.string().valid('all', 'stale'), indices).required();
export const whichShells = about(
  'which shells: all, those cut or sewn since they were unfolded, or each by one of its faces',
  otherwise(which, 'all'),
);

/** The surface that is flattened: the model as it is, or as it renders when smoothed; what the document says when absent. */
export const surfaceChoice = about(
  'the surface that is flattened: the model as it is, or as it renders when smoothed; what the document says when absent',
  optional(choice('cage', 'smoothed')),
);
