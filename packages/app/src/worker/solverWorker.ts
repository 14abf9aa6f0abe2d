import { localSolvers } from '@blunt-hem/core/operations/localSolvers';
import type { RelaxJob, UnfoldJob } from '@blunt-hem/core/operations/operation';
import type { Context, Progress } from '@blunt-hem/core/progress';
import type { Relaxed } from '@blunt-hem/core/relax/relax';
import type { Unfolded } from '@blunt-hem/core/unfold/unfold';
import * as Comlink from 'comlink';
import { answer } from './answer.ts';
import type { Answer } from './protocol.ts';

/** One solver of the pool. Its stop flag is shared memory, so it is heard in the middle of a solve. */
export interface SolverApi {
  unfold(
    jobs: readonly UnfoldJob[],
    stop: Int32Array,
    report: (p: Progress) => void,
  ): Promise<Answer<readonly Unfolded[]>>;
  relax(
    jobs: readonly RelaxJob[],
    stop: Int32Array,
    report: (p: Progress) => void,
  ): Promise<Answer<readonly Relaxed[]>>;
}

/** Reports closer together than this are left out, milliseconds. */
const QUIET = 60;

function contextOf(stop: Int32Array, report: (p: Progress) => void): Context {
  let last = 0;
  return {
    signal: {
      get aborted() {
        return Atomics.load(stop, 0) === 1;
      },
    },
    report(progress) {
      const now = performance.now();
      if (now - last < QUIET) return;
      last = now;
      report(progress);
    },
  };
}

const api: SolverApi = {
  unfold: (jobs, stop, report) => answer(() => localSolvers.unfold(jobs, contextOf(stop, report))),
  relax: (jobs, stop, report) => answer(() => localSolvers.relax(jobs, contextOf(stop, report))),
};

Comlink.expose(api);
