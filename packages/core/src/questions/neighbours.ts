import { HemError } from '../errors.ts';
import { about, choice, record, whole } from '../params.ts';
import { TARGETS, targetOf } from '../select/targets/index.ts';
import type { Spot } from '../select/targets/target.ts';
import { groundOf } from './ground.ts';
import { question } from './question.ts';

/** Where keys can go from a point, an edge, a face or a shell; to nothing that is hidden. */
export const neighbours = question({
  name: 'neighbours',
  params: record({
    target: about('what is looked for', choice(...TARGETS)),
    of: about('the one whose neighbours are meant, by number', whole(0, 2 ** 32 - 1)),
  }),
  byHand: true,
  answer(document, { target, of }): readonly Spot[] {
    const ground = groundOf(document);
    const { neighbours, count } = targetOf(target);
    if (of >= count(ground)) throw new HemError('no-such-element', `There is nothing with the number ${of}.`);
    return neighbours(ground, of);
  },
});
