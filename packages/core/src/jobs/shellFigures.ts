import type { HemDocument } from '../document/document.ts';
import { figuresOf, type ShellFigures } from '../document/figures.ts';
import { heedStop } from '../progress.ts';
import type { Job } from './job.ts';

export interface FiguresTask {
  readonly document: HemDocument;
  /** Numbers of shells. */
  readonly shells: readonly number[];
}

/** What is known of some shells of a document. */
export const shellFigures: Job<'figures', FiguresTask, readonly ShellFigures[]> = {
  name: 'figures',
  run: ({ document, shells }, { signal }) =>
    shells.map((shell) => {
      heedStop(signal);
      return figuresOf(document, shell);
    }),
};
