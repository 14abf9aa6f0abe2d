import { knownEdges } from '../operations/cut/seamChange.ts';
import { cutModel } from '../operations/cut/shiftSeam.ts';
import { about, indices, number, record } from '../params.ts';
import { widenDart } from '../seams/widenDart.ts';
import { question } from './question.ts';

/** The two lines to which a dart is widened. */
export const widenedDart = question({
  name: 'widened-dart',
  params: record({
    edges: about('edges of the dart, by number', indices),
    width: about('how wide it opens on either side, as a part of the way from its pivot', number(0.01, 2)),
  }),
  byHand: true,
  answer: (document, { edges, width }): number[] =>
    widenDart(cutModel(document), knownEdges(document, edges), width),
});
