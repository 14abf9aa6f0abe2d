import { type HemDocument, shellsOf } from '../document/document.ts';
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
  folded: 'folded faces',
} as const;
type FigureName = keyof typeof FIGURES;
const NAMES = Object.keys(FIGURES) as FigureName[];

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
    readings(document, where).flatMap(({ value, firstFace }) => (value > above ? [firstFace] : [])),
});

/** The shell of which a figure is greatest, the first of several; none while nothing lies flat. */
export const shellWorst = selector({
  of: 'shells',
  key: 'worst',
  params: record({ worst: about('the figure', choice(...NAMES)) }),
  words: ({ worst }) => `the shell of most ${FIGURES[worst]}`,
  resolve(document, { worst }) {
    const all = readings(document, worst);
    const most = Math.max(...all.map(({ value }) => value));
    return all
      .filter(({ value }) => value === most)
      .map(({ firstFace }) => firstFace)
      .slice(0, 1);
  },
});

/** A figure of every shell that lies flat, and its first face. */
const readings = (document: HemDocument, name: FigureName) =>
  Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s)).flatMap(
    ({ stretch, folded, firstFace }) =>
      stretch ? [{ firstFace, value: name === 'folded' ? folded : stretch[name] }] : [],
  );
