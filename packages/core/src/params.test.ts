import { describe, expect, expectTypeOf, it } from 'vitest';
import { type ParamsOf, request } from './operations/catalogue.ts';
import {
  choice,
  flag,
  type Given,
  indices,
  list,
  number,
  optional,
  otherwise,
  record,
  type Taken,
  tuple,
  whole,
  words,
} from './params.ts';

const params = record({
  how: otherwise(choice('hide', 'show'), 'hide'),
  faces: indices,
  name: optional(words(5)),
  sizes: otherwise(list(number(0, 1), { unique: true }), []),
  matrix: tuple(2),
  deep: otherwise(record({ on: flag(), at: optional(whole(1, 3)) }), { on: false }),
});

describe('parameters', () => {
  it('have the types that their schema lets through', () => {
    type Out = Taken<typeof params>;
    expectTypeOf<Out['how']>().toEqualTypeOf<'hide' | 'show'>();
    expectTypeOf<Out['faces']>().toEqualTypeOf<readonly number[]>();
    expectTypeOf<Out['name']>().toEqualTypeOf<string | undefined>();
    expectTypeOf<Out['matrix']>().toEqualTypeOf<readonly [number, number]>();
    type In = Given<typeof params>;
    // What has a default may be left out; what has none may not.
    expectTypeOf<{ faces: number[]; matrix: [number, number] }>().toExtend<In>();
    expectTypeOf<{ faces: number[] }>().not.toExtend<In>();
    expectTypeOf<{ faces: number[]; matrix: [number, number]; how: 'burn' }>().not.toExtend<In>();
  });

  it('give operations the types of their requests', () => {
    expectTypeOf<{ edges: number[] }>().toExtend<ParamsOf<'cut'>>();
    expectTypeOf<{ edges: { by: { rule: 'crease'; angle: 30 } }; relax: true }>().toExtend<ParamsOf<'cut'>>();
    expectTypeOf<{ edges: { by: { rule: 'fold' } } }>().not.toExtend<ParamsOf<'cut'>>();
    expectTypeOf<{ edges: 1 }>().not.toExtend<ParamsOf<'cut'>>();
    expectTypeOf<{ shells: 'all' }>().toExtend<ParamsOf<'unfold'>>();
    expectTypeOf<{ shells: 'some' }>().not.toExtend<ParamsOf<'unfold'>>();
    // @ts-expect-error there is no such parameter
    request('cut', { edge: 1 });
    // @ts-expect-error there is no such operation
    request('fold', {});
  });

  it('fill in defaults', () => {
    const { value, error } = params.validate({ faces: [1], matrix: [1, 2] });
    expect(error).toBeUndefined();
    expect(value).toEqual({ how: 'hide', faces: [1], sizes: [], matrix: [1, 2], deep: { on: false } });
  });

  it.each([
    [{ matrix: [1, 2] }, '"faces" is required'],
    [{ faces: [], matrix: [1, 2] }, '"faces" must contain at least 1 items'],
    [{ faces: [1.5], matrix: [1, 2] }, '"faces" must hold whole numbers from 0 on'],
    [{ faces: ['1'], matrix: [1, 2] }, '"faces" must hold whole numbers from 0 on'],
    [{ faces: [1], matrix: [1] }, '"matrix" must contain 2 items'],
    [{ faces: [1], matrix: [1, 2], how: 'burn' }, '"how" must be one of [hide, show]'],
    [{ faces: [1], matrix: [1, 2], name: 'too long' }, '"name" length must be less than or equal to 5'],
    [{ faces: [1], matrix: [1, 2], sizes: [0.5, 0.5] }, '"sizes[1]" contains a duplicate value'],
    [{ faces: [1], matrix: [1, 2], deep: { on: true, at: 4 } }, '"deep.at" must be less than or equal to 3'],
    [{ faces: [1], matrix: [1, 2], more: 1 }, '"more" is not allowed'],
  ])('refuse what does not fit: %j', (given, sentence) => {
    expect(params.validate(given, { convert: false }).error?.message).toContain(sentence);
  });
});
