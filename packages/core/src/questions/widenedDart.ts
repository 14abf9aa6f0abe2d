import { knownEdges } from '../operations/cut/seamChange.ts';
import { cutModel } from '../operations/cut/shiftSeam.ts';
import { indices, number, record } from '../params.ts';
import { widenDart } from '../seams/widenDart.ts';
import { question } from './question.ts';

/** The two lines to which a dart is widened. */
export const widenedDart = question({
  name: 'widened-dart',
  params: record({
    edges: indices,
    /** On either side, as a part of the way from the pivot. */
    width: number(0.01, 2),
  }),
  answer: (document, { edges, width }): number[] =>
    widenDart(cutModel(document), knownEdges(document, edges), width),
});
