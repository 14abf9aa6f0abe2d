import { shellsOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { about, choice, number, record } from '../params.ts';
import { selector } from './selector.ts';

/** Figures of a shell that grow with what is wrong, and how they are told. */
const FIGURES = {
  l2: 'stretch L2',
  linf: 'stretch in one place',
  angleMean: 'angle',
  areaMean: 'area',
  flipped: 'flipped faces',
  collapsed: 'collapsed faces',
} as const;
const NAMES = Object.keys(FIGURES) as (keyof typeof FIGURES)[];

/** Shells with a figure above a bound: what stretches too much, wherever it is on another model. */
export const shellsWhere = selector({
  of: 'shells',
  key: 'where',
  params: record({
    where: about('the figure', choice(...NAMES)),
    above: about('it is more than this', number(0)),
  }),
  words: ({ where, above }) => `shells of ${FIGURES[where]} above ${above}`,
  resolve: (document, { where, above }) =>
    Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s)).flatMap(
      ({ stretch, firstFace }) => (stretch && stretch[where] > above ? [firstFace] : []),
    ),
});
