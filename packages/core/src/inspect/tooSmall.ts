import { type Inspection, ofShells } from './inspection.ts';

/** Texels across, below which nothing can be painted. A judgement of ours. */
const LEAST = 4;

export const tooSmall: Inspection = {
  kind: 'too-small',
  severity: 'hint',
  thing: ['shell of less than four texels across', 'shells of less than four texels across'],
  effect: 'Nothing can be painted there: sew them to a neighbour, or give them more room.',
  find: (subject) =>
    ofShells(
      subject,
      [...subject.boxes.keys()].filter((s) => {
        const box = subject.boxes[s];
        return box && Math.max(box[2] - box[0], box[3] - box[1]) * subject.options.texture < LEAST;
      }),
      (shells) => ({
        label: 'Scale to the density of the rest',
        request: { operation: 'even-density', params: { shells } },
      }),
    ),
};
