import Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { OPERATIONS, operationNamed } from './operations/catalogue.ts';
import { type Parameter, parameterOf, parametersOf } from './parameters.ts';
import {
  about,
  choice,
  flag,
  indices,
  number,
  optional,
  otherwise,
  positive,
  record,
  whole,
} from './params.ts';
import { QUESTIONS } from './questions/index.ts';
import { SELECTORS } from './selectors/index.ts';

const SCHEMAS: readonly (readonly [string, Joi.Schema])[] = [
  ...OPERATIONS.map(({ name, params }) => [name, params] as const),
  ...QUESTIONS.map(({ name, params }) => [name, params] as const),
  ...SELECTORS.map(({ of, key, params }) => [`${of} by ${key}`, params] as const),
];
const ALL = SCHEMAS.flatMap(([name, schema]) =>
  parametersOf(schema).map((parameter) => [`${name}: ${parameter.name}`, parameter, schema] as const),
);

const accepts = (schema: Joi.Schema, { name }: Parameter, value: unknown): boolean =>
  !(schema as Joi.ObjectSchema).extract(name).validate(value, { convert: false }).error;

describe('parameters', () => {
  it('are there in plenty', () => expect(ALL.length).toBeGreaterThan(120));

  it.each(ALL)('%s is described: no full stop, and begins small', (_, { about: text }) => {
    expect(text).toMatch(/^([a-z]|[A-Z]\d)/);
    expect(text).not.toMatch(/\.$/);
  });

  it.each(ALL.filter(([, { type }]) => type === 'number'))(
    '%s has the bounds that are told',
    (_, told, schema) => {
      const { least, most, positive: above, whole: isWhole } = told;
      const step = isWhole ? 1 : 1e-3;
      if (least !== undefined) {
        expect(accepts(schema, told, least)).toBe(true);
        expect(accepts(schema, told, least - step)).toBe(false);
      }
      if (most !== undefined) {
        expect(accepts(schema, told, most)).toBe(true);
        expect(accepts(schema, told, most + step)).toBe(false);
      }
      if (above) expect(accepts(schema, told, 0)).toBe(false);
      if (isWhole) expect(accepts(schema, told, (least ?? 0) + 0.5)).toBe(false);
      expect(accepts(schema, told, 'many')).toBe(false);
    },
  );

  it.each(ALL.filter(([, { type }]) => type === 'choice'))('%s is one of its choices', (_, told, schema) => {
    expect(told.choices.length).toBeGreaterThan(1);
    for (const word of told.choices) expect(accepts(schema, told, word)).toBe(true);
    expect(accepts(schema, told, 'neither of them')).toBe(false);
  });

  it.each(ALL)('%s must be given where that is told', (_, told, schema) => {
    expect(accepts(schema, told, undefined)).toBe(!told.needed);
    if (told.fallback !== undefined) expect(accepts(schema, told, told.fallback)).toBe(true);
  });

  it('are told with type, unit, bounds and what they are by themselves', () => {
    const params = record({
      angle: about('how far it turns', otherwise(number(1, 180), 60), '°'),
      count: about('how many', whole(1, 9)),
      size: about('how large', optional(positive())),
      how: about('the way', choice('left', 'right')),
      faces: about('faces, by number', indices),
      deep: flag(),
      inside: record({ on: flag() }),
      either: Joi.alternatives(Joi.string(), Joi.number()) as never,
    });
    expect(parametersOf(params)).toEqual([
      {
        name: 'angle',
        about: 'how far it turns',
        unit: '°',
        type: 'number',
        needed: false,
        fallback: 60,
        least: 1,
        most: 180,
        whole: false,
        positive: false,
        choices: [],
      },
      {
        name: 'count',
        about: 'how many',
        type: 'number',
        needed: true,
        least: 1,
        most: 9,
        whole: true,
        positive: false,
        choices: [],
      },
      {
        name: 'size',
        about: 'how large',
        type: 'number',
        needed: false,
        whole: false,
        positive: true,
        choices: [],
      },
      {
        name: 'how',
        about: 'the way',
        type: 'choice',
        needed: true,
        whole: false,
        positive: false,
        choices: ['left', 'right'],
      },
      {
        name: 'faces',
        about: 'faces, by number',
        type: 'list',
        needed: true,
        whole: false,
        positive: false,
        choices: [],
      },
      { name: 'deep', about: '', type: 'flag', needed: true, whole: false, positive: false, choices: [] },
      {
        name: 'inside',
        about: '',
        type: 'object',
        needed: false,
        whole: false,
        positive: false,
        choices: [],
      },
      { name: 'either', about: '', type: 'mixed', needed: false, whole: false, positive: false, choices: [] },
    ]);
    expect(parameterOf(operationNamed('relax').params, 'balance')).toMatchObject({ least: 0, most: 1 });
    expect(() => parameterOf(params, 'nothing')).toThrow('There is no parameter “nothing”');
  });
});
