import { relax } from '../relax/relax.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import type { Solvers } from './operation.ts';

/** Solves here and now, one shell after the other. */
export const localSolvers: Solvers = {
  unfold: async (jobs, context) =>
    jobs.map(({ shell, method, options }) => unfoldShell(shell, method, context, options)),
  relax: async (jobs, context) =>
    jobs.map(({ shell, start, options }) => relax(shell, start, options, context)),
};
