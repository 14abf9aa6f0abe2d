import { modelTree, onModel } from '../derived/trees.ts';
import { about, record, tuple } from '../params.ts';
import { pickAlong } from './pick.ts';
import { question } from './question.ts';

/** What a ray meets on the model. */
export const pickModel = question({
  name: 'pick-model',
  params: record({
    origin: about('from where it is looked', tuple(3), 'model units'),
    direction: about('where it is looked', tuple(3)),
  }),
  several: true,
  answer: async (document, { origin, direction }, { jobs }) =>
    pickAlong(document, await modelTree(document, jobs), onModel(document), origin, direction),
});
