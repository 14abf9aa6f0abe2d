import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { glove } from '../testing/sculpts.ts';
import { isStretched } from './layFlat.ts';
import { predict } from './predict.ts';

describe('what a shell would be like', () => {
  it('is not told of one that was stopped on the way', () => {
    // Where its plain map flips a shell is laid flat from a disc, which is stopped half-way.
    const closed = glove(44);
    let looks = 0;
    const signal = {
      get aborted() {
        return ++looks > 60;
      },
    };
    expect(() => predict(closed, { signal })).toThrow(StoppedError);
    looks = 0;
    expect(() => isStretched(closed, { most: 1.05, relaxSteps: 8 }, signal)).toThrow(StoppedError);
  });
});
