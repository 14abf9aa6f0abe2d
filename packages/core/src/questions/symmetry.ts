import { changesModel } from '../document/delta.ts';
import { plainDocument } from '../document/document.ts';
import type { FoundSymmetry } from '../jobs/symmetry.ts';
import { about, choice, record } from '../params.ts';
import { acrossAxis } from '../symmetry/findSymmetry.ts';
import { question } from './question.ts';

/** Planes and axes an artist can ask for: what is found, or the plane across an axis through its origin. */
export const SYMMETRIES = ['mirror', 'turn', 'x', 'y', 'z'] as const;
export type SymmetryChoice = (typeof SYMMETRIES)[number];

/** What is symmetric to what; undefined where nothing is found. */
export const symmetry = question({
  name: 'symmetry',
  params: record({
    by: about(
      'what is looked for: a plane, an axis, or a plane across an axis of the file',
      choice(...SYMMETRIES),
    ),
  }),
  lapses: changesModel,
  answer(document, { by }, context): Promise<FoundSymmetry | undefined> {
    const wanted = by === 'mirror' || by === 'turn' ? by : acrossAxis(by);
    return context.jobs.run('symmetry', { document: plainDocument(document), wanted }, context);
  },
});
