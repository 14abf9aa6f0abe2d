import Joi from 'joi';
import { about, choice, type Param, record } from '../params.ts';
import { type Chosen, resolveOne } from '../selectors/index.ts';
import { CHOSEN_KINDS } from '../selectors/selector.ts';
import { question } from './question.ts';

const by: Param<Chosen['by']> = Joi.object().unknown(true).required();

/** Which edges, faces or shells a selector means: numbers of edges and faces, of shells one of their faces each. */
export const chosen = question({
  name: 'chosen',
  params: record({
    of: about('what is meant', choice(...CHOSEN_KINDS)),
    by: about('what it is told by', by),
  }),
  answer: async (document, { of, by: told }, context): Promise<readonly number[]> =>
    (await resolveOne(document, of, { by: told }, context)).indices,
});
