import type { ProposalOptions } from './proposeSeams.ts';

/** What artists ask for: few clean shells to paint on, or a quick rough cut. */
export const PRESETS: Readonly<Record<'clean' | 'rough', Omit<ProposalOptions, 'hidden'>>> = {
  clean: { most: 1.05, smallest: 0.004, relaxSteps: 3, triangles: 2000 },
  rough: { most: 1.25, smallest: 0.01, relaxSteps: 2, triangles: 2000 },
};

/** How far seams are to hide, unless it is said: from 0, short, to 1, hidden. */
export const HIDDEN = 0.9;

/** Shells that can be wished for. */
export const MOST_PIECES = 200;
